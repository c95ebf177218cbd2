"""The commands say what is wrong and what to do, in one sentence."""

import os
import socket
import subprocess
import tempfile
import unittest
from pathlib import Path
from unittest import mock

from bootmark.launch import __main__ as main
from bootmark.launch import cluster, demo, environment, packages, web
from bootmark.launch.say import ROOT, Stop


class Sentences(unittest.TestCase):
    def said(self, call: object, *args: object, **words: object) -> str:
        with self.assertRaises(Stop) as caught:
            call(*args, **words)  # type: ignore[operator]
        return str(caught.exception)

    def test_a_port_in_use(self) -> None:
        with socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            port = taken.getsockname()[1]
            with self.assertRaises(Stop) as caught, demo.running(port, reset=False, logs=Path(tempfile.gettempdir())):
                pass
        self.assertIn(f"--port {port + 1}", str(caught.exception))

    def test_no_place_to_listen_on(self) -> None:
        for bind in ("8600", "127.0.0.1:many", "127.0.0.1:99999", "no such host.invalid:80"):
            with self.assertRaises(Stop), web.listening(bind):
                pass

    def test_a_number_of_processes_that_is_none(self) -> None:
        for text in ("0", "-1", "33", "two", "1.5"):
            with mock.patch.dict(os.environ, {"BOOTMARK_WORKERS": text}):
                self.assertIn("from 1 to 32", self.said(web.worker_count))
        with mock.patch.dict(os.environ, {"BOOTMARK_WORKERS": "3"}):
            self.assertEqual(web.worker_count(), 3)

    def test_no_root_and_no_sudo(self) -> None:
        with mock.patch("os.geteuid", return_value=1000), mock.patch("shutil.which", return_value=None):
            self.assertIn("ask an administrator", self.said(packages.as_root))

    def test_sudo_is_used_where_there_is_one(self) -> None:
        with mock.patch("os.geteuid", return_value=1000), mock.patch("shutil.which", return_value="/usr/bin/sudo"):
            self.assertEqual(packages.as_root(), ["sudo"])

    def test_a_full_disk(self) -> None:
        with mock.patch("shutil.disk_usage", return_value=mock.Mock(free=5_000_000)):
            self.assertIn("make room", self.said(packages.ready))
            with tempfile.TemporaryDirectory() as folder:
                kept = cluster.Cluster(Path(folder), 1, {})
                self.assertIn("only 5 MB are free", self.said(cluster.make_startable, kept))

    def test_not_debian(self) -> None:
        with mock.patch("shutil.which", return_value=None):
            self.assertIn("not a Debian machine", self.said(packages.install_debian, ["postgresql"]))

    def test_half_a_cluster_and_a_spoilt_note(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            home = Path(folder)
            with mock.patch.object(cluster, "home", return_value=home):
                (home / "data").mkdir()
                self.assertIn("--reset", self.said(cluster.lasting))
                for note in ("{", "[]", '{"port": 1}'):
                    (home / "cluster.json").write_text(note)
                    self.assertIn("--reset", self.said(cluster.lasting))

    def test_a_broken_cluster(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            Path(folder).chmod(0o755)
            (Path(folder) / "postgres" / "data").mkdir(parents=True)
            broken = cluster.Cluster(Path(folder) / "postgres", cluster.free_port(), {})
            with self.assertRaises(Stop) as caught, cluster.running(broken, os.open(folder, os.O_RDONLY)):
                pass
        self.assertIn("did not start", str(caught.exception))

    def test_serve_names_the_setting_that_is_missing(self) -> None:
        with mock.patch.dict(os.environ, {"BOOTMARK_WEB_URL": ""}), mock.patch.object(packages, "ready"):
            self.assertIn("BOOTMARK_WEB_URL", self.said(main.serve, None))


class Machine(unittest.TestCase):
    def test_what_is_missing_is_found(self) -> None:
        with mock.patch.object(packages, "postgres_bin", return_value=None), mock.patch("shutil.which", return_value=None):
            self.assertEqual(packages.missing(browser=True), ["postgresql", "chromium", "chromium-driver"])
            self.assertEqual(packages.missing(browser=False), ["postgresql"])

    def test_passwords_do_not_stand_on_a_command_line(self) -> None:
        kept = cluster.Cluster(Path("/x"), 1, dict.fromkeys(cluster.ROLES, "pw"))
        self.assertEqual(environment.environment(kept)["BOOTMARK_WEB_URL"], "postgresql+psycopg://bm_web:pw@127.0.0.1:1/bootmark")
        self.assertNotIn("pw", " ".join([*web.command(3), *kept.program(4).command]))

    def test_help_runs_without_an_environment(self) -> None:
        done = subprocess.run(
            [str(ROOT / "bootmark"), "--help"], capture_output=True, text=True, check=True, env={"PATH": os.environ["PATH"]}
        )
        for command in ("demo", "serve", "test", "check", "shots"):
            self.assertIn(command, done.stdout)
