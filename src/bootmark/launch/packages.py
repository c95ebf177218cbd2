"""Debian packages and the Python environment, installed only where missing."""

import hashlib
import os
import shutil
import subprocess
import sys
from collections.abc import Sequence
from pathlib import Path

from bootmark.launch.say import ROOT, Stop, step

VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
LOCK, TEST_LOCK = ROOT / "requirements.lock", ROOT / "requirements-test.lock"
NO_MAIN_CLUSTER = Path("/etc/postgresql-common/createcluster.conf")


def postgres_bin(version: str = "") -> Path | None:
    """The programs of PostgreSQL of one major version, or of the newest from 15 on; None where they are not installed."""
    versions = [
        (int(path.parent.name), path)
        for path in Path("/usr/lib/postgresql").glob("*/bin")
        if path.parent.name.isdigit() and (path / "initdb").exists()
    ]
    usable = [pair for pair in versions if (str(pair[0]) == version if version else pair[0] >= 15)]
    return max(usable)[1] if usable else None


def has_venv() -> bool:
    return subprocess.run([sys.executable, "-c", "import ensurepip, venv"], capture_output=True).returncode == 0


def missing(*, browser: bool) -> list[str]:
    """Debian packages that this machine still lacks for the work at hand."""
    wanted = []
    if postgres_bin() is None:
        wanted.append("postgresql")
    if not has_venv():
        wanted.append("python3-venv")
    if browser and not shutil.which("chromium"):
        wanted.append("chromium")
    if browser and not shutil.which("chromedriver"):
        wanted.append("chromium-driver")
    return wanted


def as_root() -> list[str]:
    if os.geteuid() == 0:
        return []
    if shutil.which("sudo"):
        return ["sudo"]
    raise Stop(
        "Bootmark must install Debian packages but this user is not root and has no sudo: "
        "ask an administrator to run 'apt-get install postgresql python3-venv chromium chromium-driver'."
    )


def install_debian(packages: Sequence[str]) -> None:
    if not packages:
        return
    if not shutil.which("apt-get"):
        raise Stop(f"Bootmark needs {', '.join(packages)} and this is not a Debian machine: install them first.")
    sudo = as_root()
    step(f"Installing from Debian: {', '.join(packages)} (a few minutes the first time)")
    if "postgresql" in packages:
        # Debian would start a cluster of its own on port 5432 at install.
        script = f"mkdir -p {NO_MAIN_CLUSTER.parent}; [ -e {NO_MAIN_CLUSTER} ] || echo 'create_main_cluster = false' > {NO_MAIN_CLUSTER}"
        subprocess.run([*sudo, "sh", "-c", script], check=True)
    environment = ["env", "DEBIAN_FRONTEND=noninteractive"]
    options = ["-y", "-qq", "--no-install-recommends", "-o", "Dpkg::Options::=--force-confold"]
    for command in (["apt-get", "update", "-qq"], ["apt-get", "install", *options, *packages]):
        done = subprocess.run([*sudo, *environment, *command], capture_output=True, text=True)
        if done.returncode:
            last = (done.stderr.strip().splitlines() or ["no reason given"])[-1]
            raise Stop(f"Debian could not install {', '.join(packages)} ({last}): check the network and the disk, then run this again.")


def stamp_of(lock: Path) -> Path:
    return VENV / f"{lock.stem}.stamp"


def digest(lock: Path) -> str:
    return hashlib.sha256(lock.read_bytes()).hexdigest()


def stamped(lock: Path) -> bool:
    """Whether the environment was made from this lock file as it is now."""
    stamp = stamp_of(lock)
    return stamp.exists() and stamp.read_text() == digest(lock)


def install_python(lock: Path) -> None:
    """Make .venv from the lock file; a stamp of its contents says when nothing is to be done."""
    # The tests' lock holds everything that the application's does.
    if PYTHON.exists() and any(stamped(each) for each in (lock, TEST_LOCK)):
        return
    if not PYTHON.exists():
        step("Making the Python environment in .venv")
        subprocess.run([sys.executable, "-m", "venv", "--clear", str(VENV)], check=True)
    step(f"Installing Python packages from {lock.name} (about a minute the first time)")
    command = [str(PYTHON), "-m", "pip", "install", "--disable-pip-version-check", "-q", "--require-hashes", "-r", str(lock)]
    done = subprocess.run(command, capture_output=True, text=True)
    if done.returncode:
        last = (done.stderr.strip().splitlines() or ["no reason given"])[-1]
        raise Stop(f"Python packages could not be installed ({last}): check the network, or remove .venv and run this again.")
    stamp_of(lock).write_text(digest(lock))


def ready(*, testing: bool = False) -> None:
    """Everything that the demo, or with testing the tests, need on this machine."""
    if sys.version_info < (3, 11):
        raise Stop("Bootmark needs Python 3.11 or later: install Debian 12's python3.")
    free = shutil.disk_usage(ROOT).free
    if free < 300_000_000:
        raise Stop(f"Only {free // 1_000_000} MB are free on this disk and Bootmark needs 300: make room and run this again.")
    install_debian(missing(browser=testing))
    install_python(TEST_LOCK if testing else LOCK)
