"""Every text of a template is a message: what is read is said, what is not is left alone."""

import gettext
import unittest

from jinja2 import DictLoader

from bootmark.say import Tongue, speaking
from bootmark.web.app import Bootmark
from bootmark.web.spoken import said_words


class Loud(gettext.NullTranslations):
    """Says everything in capitals, fields left as they are, and remembers what it was asked for."""

    def __init__(self) -> None:
        super().__init__()
        self.asked: list[str] = []

    def gettext(self, message: str) -> str:
        self.asked.append(message)
        return message.upper()


class Spoken(unittest.TestCase):
    def said(self, template: str, **values: object) -> str:
        app = Bootmark("probe")
        app.jinja_env.globals["said_words"] = said_words
        app.jinja_env.loader = DictLoader({"page.html": template})
        self.loud = Loud()
        with speaking(Tongue("xx", self.loud)), app.app_context():
            return app.jinja_env.get_template("page.html").render(**values)

    def test_text_between_tags_is_said_and_markup_is_not(self) -> None:
        drawn = self.said('<p class="small">Two words <b title="a hint" data-x="a place">and bold</b>.</p>')
        self.assertEqual(drawn, '<p class="small">TWO WORDS <b title="A HINT" data-x="a place">AND BOLD</b>.</p>')

    def test_a_sentence_with_values_is_one_message_and_values_are_escaped(self) -> None:
        drawn = self.said("<p>Looked at {{ name }}\n   {{ days }} days ago</p>", name="<i>", days=3)
        self.assertEqual(drawn, "<p>LOOKED AT &lt;i&gt; 3 DAYS AGO</p>")
        self.assertEqual(self.loud.asked, ["Looked at {0} {1} days ago"])

    def test_words_that_an_expression_chooses_are_said(self) -> None:
        template = "<p>{{ 'today' if late else 'by ' ~ day }}, {{ {'a': 'leave it'}[key] }}, {{ note or 'no note' }}</p>"
        self.assertEqual(self.said(template, late=True, key="a"), "<p>TODAY, LEAVE IT, NO NOTE</p>")
        self.assertEqual(self.said(template, late=False, day="noon", key="a", note="mine"), "<p>BY noon, LEAVE IT, mine</p>")

    def test_titles_that_are_handed_on_are_said_and_names_of_fields_are_not(self) -> None:
        template = (
            "{% macro field(name, title, kind='text') %}<label for=\"{{ name }}\">{{ title }}</label>{% endmacro %}"
            "{{ field('area', 'Area of it') }}{% for title, key in (('For it', 'speaks'),) %}<i id=\"{{ key }}\">{{ title }}</i>{% endfor %}"
        )
        self.assertEqual(self.said(template), '<label for="area">AREA OF IT</label><i id="speaks">FOR IT</i>')

    def test_what_is_compared_is_no_text(self) -> None:
        self.assertEqual(self.said("{% set kind = 'Look' %}{% if 'Look' == word %}<p>Same</p>{% endif %}", word="Look"), "<p>SAME</p>")

    def test_scripts_their_data_and_addresses_are_left_alone(self) -> None:
        template = '<script type="application/json">{"a": "Some words"}</script><a href="/f/{{ id }}/book" x-text="a words">On</a>'
        self.assertEqual(self.said(template, id=7), template.replace("{{ id }}", "7").replace(">On<", ">ON<"))

    def test_branches_begin_where_the_text_before_them_ends(self) -> None:
        template = '<p {% if on %}title="It is on"{% else %}data-off="It is off"{% endif %}>Here</p>'
        self.assertEqual(self.said(template, on=True), '<p title="IT IS ON">HERE</p>')
        self.assertEqual(self.said(template, on=False), '<p data-off="It is off">HERE</p>')

    def test_what_holds_no_letter_is_no_message(self) -> None:
        self.assertEqual(self.said("<p>{{ a }}, {{ b }}: 3 &nbsp;</p>", a=1, b="x"), "<p>1, x: 3 &nbsp;</p>")
        self.assertEqual(self.loud.asked, [])
