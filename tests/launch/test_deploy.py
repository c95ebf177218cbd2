"""The unit files for servers name what is there, and restart what ends."""

import configparser
import re
import shutil
import ssl
import subprocess
import tempfile
import time
import unittest
import urllib.error
import urllib.request
from pathlib import Path

from bootmark.launch import certificate
from bootmark.launch.__main__ import parser
from bootmark.launch.cluster import free_port, port_taken
from bootmark.launch.say import ROOT, Stop

UNITS = sorted((ROOT / "deploy").glob("*.service"))


def unit(path: Path) -> configparser.ConfigParser:
    read = configparser.ConfigParser(strict=True, interpolation=None)
    read.optionxform = str  # type: ignore[assignment, method-assign]
    read.read(path)
    return read


class Units(unittest.TestCase):
    def test_each_runs_a_command_that_is_there_as_its_own_user_and_is_restarted(self) -> None:
        self.assertEqual([path.name for path in UNITS], ["bootmark-worker.service", "bootmark.service"])
        for path in UNITS:
            service = unit(path)["Service"]
            program, command = service["ExecStart"].split()
            self.assertEqual(program, "/opt/bootmark/bootmark")
            self.assertTrue(parser().parse_args([command]).action, command)
            self.assertEqual((service["Restart"], service["User"], service["UMask"]), ("always", "bootmark", "0077"))
            self.assertEqual(unit(path)["Unit"]["StartLimitIntervalSec"], "0")

    def test_its_settings_are_those_that_the_page_about_running_names(self) -> None:
        manual = (ROOT / "docs" / "running.md").read_text()
        settings = re.findall(r"^(BOOTMARK_\w+)=", (ROOT / "deploy" / "bootmark.env.example").read_text(), re.M)
        self.assertTrue(settings)
        for setting in settings:
            self.assertIn(f"`{setting}`", manual)

    def test_systemd_itself_finds_nothing_wrong(self) -> None:
        tool = shutil.which("systemd-analyze")
        if tool is None:
            self.skipTest("systemd is not on this machine")
        with tempfile.TemporaryDirectory() as folder:
            for path in UNITS:
                copy = Path(folder) / path.name
                copy.write_text(path.read_text().replace("/opt/bootmark", str(ROOT)))
                done = subprocess.run([tool, "verify", "--man=no", str(copy)], capture_output=True, text=True)
                self.assertNotRegex(done.stderr, r"Unknown (key|section|lvalue)|Failed to parse", done.stderr)


class Nginx(unittest.TestCase):
    def test_the_proxy_holds_what_the_application_believes(self) -> None:
        conf = (ROOT / "deploy" / "nginx.conf").read_text()
        # X-Forwarded-For is set, never added to: what a client sent of it is not believed.
        self.assertEqual(re.findall(r"proxy_set_header (X-Forwarded-\w+) (\S+);", conf), [
            ("X-Forwarded-For", "$remote_addr"), ("X-Forwarded-Host", "$host"), ("X-Forwarded-Proto", "https"),
        ])  # fmt: skip
        self.assertIn("client_max_body_size 32m", conf)

    def test_nginx_itself_takes_it_with_a_certificate_of_ours_and_a_phone_that_trusts_it_comes_in(self) -> None:
        nginx = shutil.which("nginx")
        if nginx is None:
            self.skipTest("nginx is not on this machine")
        with tempfile.TemporaryDirectory() as name:
            folder = Path(name)
            folder.chmod(0o755)
            tls = certificate.make(folder / "tls", ["localhost"])
            port, plain = free_port(), free_port()
            site = (ROOT / "deploy" / "nginx.conf").read_text()
            for old, new in (
                ("/var/lib/bootmark/farms/tls", str(tls.folder)),
                ("listen 443 ssl;", f"listen 127.0.0.1:{port} ssl;"),
                ("listen 80;", f"listen 127.0.0.1:{plain};"),
                ("    listen [::]:443 ssl;\n", ""),
                ("    listen [::]:80;\n", ""),
                ("127.0.0.1:8600", f"127.0.0.1:{plain + 1 if plain < 65000 else plain - 1}"),
            ):
                self.assertIn(old, site)
                site = site.replace(old, new)
            (folder / "nginx.conf").write_text(f"pid {folder}/pid; error_log stderr; events {{}} http {{ access_log off; {site} }}")
            words = [nginx, "-p", name, "-c", str(folder / "nginx.conf")]
            done = subprocess.run([*words, "-t"], capture_output=True, text=True)
            self.assertEqual(done.returncode, 0, done.stderr)
            process = subprocess.Popen([*words, "-g", "daemon off;"], stderr=subprocess.DEVNULL)
            try:
                context = ssl.create_default_context(cafile=str(tls.authority))
                limit = time.monotonic() + 10
                while not port_taken(port) and time.monotonic() < limit:
                    time.sleep(0.05)
                with self.assertRaises(urllib.error.HTTPError) as answered:
                    urllib.request.urlopen(f"https://localhost:{port}/", context=context, timeout=10)
                self.assertEqual(answered.exception.code, 502, "TLS holds; nobody is behind it")
            finally:
                process.terminate()
                process.wait(10)


class Certificates(unittest.TestCase):
    def test_the_authority_stays_and_the_server_s_is_made_anew(self) -> None:
        with tempfile.TemporaryDirectory() as name:
            first = certificate.make(Path(name) / "tls", ["bootmark.lan", "192.168.1.20"])
            kept, server = first.authority.read_bytes(), first.server.read_bytes()
            again = certificate.make(Path(name) / "tls", ["bootmark.lan"])
            self.assertEqual((again.authority.read_bytes(), again.server.read_bytes() == server), (kept, False))
            for key in (again.authority_key, again.server_key):
                self.assertEqual(key.stat().st_mode & 0o077, 0)
            told = subprocess.run(["openssl", "x509", "-in", str(again.server), "-noout", "-text"], capture_output=True, text=True).stdout
            self.assertTrue("DNS:bootmark.lan" in told and "CA:FALSE" in told and "TLS Web Server Authentication" in told)
            words = ["openssl", "verify", "-CAfile", str(again.authority), "-verify_hostname", "bootmark.lan", str(again.server)]
            self.assertEqual(subprocess.run(words, capture_output=True).returncode, 0)

    def test_what_is_no_host_is_said(self) -> None:
        self.assertEqual((certificate.named("192.168.1.20"), certificate.named("fe80::1")), ("IP:192.168.1.20", "IP:fe80::1"))
        for host in ("", "a b", "-x", "x/../y", "x\ny", "a" * 300, "host,IP:1.2.3.4"):
            with self.assertRaises(Stop):
                certificate.named(host)
