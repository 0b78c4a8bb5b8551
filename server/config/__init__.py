"""Settings, the API, how errors are answered, the demo data, starting and serving."""
