"""What is served."""

from bootmark.core.catalogue import default
from bootmark.web import create_app

app = create_app()
# Read before a request is taken, so that nobody's first page waits for them.
default()
for name in app.jinja_env.list_templates(extensions=["html"]):
    app.jinja_env.get_template(name)
