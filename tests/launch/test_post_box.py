"""The demo's stand-in mail server: what it takes is read on its page, and nothing in a letter becomes markup."""

import smtplib
import threading
import unittest
import urllib.request
from email.message import EmailMessage

from bootmark.launch.cluster import free_port
from bootmark.standins import post_box


class Letters(unittest.TestCase):
    def test_a_letter_is_read_on_the_page(self) -> None:
        mail_port = free_port()
        mail, page = post_box.serve(mail_port, free_port())
        self.addCleanup(mail.stop)
        threading.Thread(target=page.serve_forever, daemon=True).start()
        self.addCleanup(page.server_close)
        self.addCleanup(page.shutdown)
        address = f"http://127.0.0.1:{page.server_address[1]}/"
        with urllib.request.urlopen(address, timeout=10) as answer:
            self.assertIn("None yet.", answer.read().decode())
        letter = EmailMessage()
        letter["From"], letter["To"], letter["Subject"] = "bootmark@ferrin.example", "sorrel@ferrin.example", "Join us"
        letter.set_content("<script>alert(1)</script> é " + "x" * 200)
        with smtplib.SMTP("127.0.0.1", mail_port, timeout=10) as server:
            server.send_message(letter)
        with urllib.request.urlopen(address, timeout=10) as answer:
            text = answer.read().decode()
        self.assertIn("sorrel@ferrin.example", text)
        self.assertIn("&lt;script&gt;alert(1)&lt;/script&gt; é " + "x" * 200, text)
