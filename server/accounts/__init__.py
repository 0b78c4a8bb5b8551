"""Who is signed in; the demo's visitor."""
