"""Computing in processes of its own: what is wished for, the jobs, the workers and their pool."""
