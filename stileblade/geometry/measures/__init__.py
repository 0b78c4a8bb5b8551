"""What is measured on regions: distances, narrow places, symmetry, bridges."""
