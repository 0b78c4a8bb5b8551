"""The worst that can be sent: documents, files and requests, made by generators."""
