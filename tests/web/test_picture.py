"""A picture laid under the plan."""

import io
import json
import re

from PIL import Image

from bootmark.services import pictures
from bootmark.standins.estate import FARM
from bootmark.store.session import farm_session
from tests.web.test_pages import F, PagesTest


def picture(width: int = 900, height: int = 600) -> bytes:
    content = io.BytesIO()
    Image.effect_noise((width, height), 60).convert("RGB").save(content, "JPEG", exif=Image.Exif())
    return content.getvalue()


class Picture(PagesTest):
    def take_in(self, content: bytes, name: str = "farm.jpg") -> object:
        return self.post(self.client, f"{F}/farm/picture/image", {"picture": (io.BytesIO(content), name)})

    def test_it_is_taken_in_laid_seen_and_taken_away(self) -> None:
        where = self.take_in(picture()).headers["Location"]  # type: ignore[attr-defined]
        self.assertEqual(self.take_in(picture()).status_code, 302)  # type: ignore[attr-defined]
        image = re.search("image=([0-9a-f-]+)", where)
        assert image
        self.assertIn("Spots on the picture", self.client.get(where).text)
        self.assertEqual(self.client.get(f"{F}/farm/picture/{image[1]}.jpg").mimetype, "image/jpeg")
        form = self.form() | {"image_id": image[1], "marks": "[[10, 10], [880, 10]]", "outline": "[[0, 0], [2, 0]]"}
        near = self.post(self.client, f"{F}/farm/picture", form)
        self.assertEqual(near.status_code, 400)
        self.assertIn("too near each other", near.text)
        self.assertIn("[[10, 10], [880, 10]]", near.text.replace("&#34;", '"'))
        form |= {"outline": json.dumps([[0, 0], [700, 0]])}
        self.assertEqual(self.post(self.client, f"{F}/farm/picture", form).status_code, 302)
        page = self.client.get(f"{F}/farm").text
        self.assertIn(f'<image href="{F}/farm/picture/{image[1]}.jpg"', page)
        with farm_session(FARM) as session:
            laid = pictures.newest(session)
            assert laid
        away = form | {"record_id": str(laid.id), "base": str(laid.command_id), "command_id": self.form()["command_id"], "ended": "yes"}
        self.assertEqual(self.post(self.client, f"{F}/farm/picture", away).status_code, 302)
        self.assertNotIn("<image", self.client.get(f"{F}/farm").text)

    def test_what_is_no_picture_is_refused_beside_its_field(self) -> None:
        answer = self.take_in(b"GIF89a, or so it says", "farm.jpg")
        self.assertEqual(answer.status_code, 400)  # type: ignore[attr-defined]
        self.assertIn("not a picture that can be read", answer.text)  # type: ignore[attr-defined]
        self.assertEqual(self.post(self.client, f"{F}/farm/picture/image", {}).status_code, 400)
        self.assertEqual(self.client.get(f"{F}/farm/picture?image=moon").status_code, 404)
        for marks in ("[[1, 2], [", "[[-4, 2], [900, 3]]", "[[1], [2]]", '"two"'):
            form = self.form() | {"image_id": str(self.form()["record_id"]), "marks": marks, "outline": "[[0, 0], [700, 0]]"}
            self.assertIn(self.post(self.client, f"{F}/farm/picture", form).status_code, (400, 404), marks)
