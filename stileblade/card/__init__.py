"""Card sizes and envelopes, stock, and ways of folding."""
