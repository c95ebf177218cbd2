"""Whether this process, what it rests on and what works beside it are well."""
