"""The page's scripts: modules under one address that holds the language and changes with any of them."""
