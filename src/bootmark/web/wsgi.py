"""What gunicorn serves."""

from bootmark.web import create_app

app = create_app()
