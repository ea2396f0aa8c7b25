"""Work that is done beside the requests: queued in PostgreSQL, done by a worker of its own."""
