"""The commands of ./bootmark."""

import argparse
import contextlib
import os
import secrets
import shutil
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

from bootmark.launch import certificate, packages, web
from bootmark.launch import cluster as clusters
from bootmark.launch import demo as demos
from bootmark.launch import installation as installations
from bootmark.launch.child import Program
from bootmark.launch.environment import environment, python
from bootmark.launch.say import ROOT, VAR, Stop, step

DEMO_PORT = 8600


def demo(options: argparse.Namespace) -> int:
    packages.ready()
    with demos.running(options.port, reset=options.reset, logs=VAR / "log") as (address, supervisor):
        if not supervisor.stopping:
            print(f"\nBootmark runs at {address}\n")
            subprocess.run([str(packages.PYTHON), "-m", "bootmark.standins.people"], env=environment(), cwd=ROOT)
            print("\nCtrl-C stops it.", flush=True)
        supervisor.wait()
    print("\nStopped.", flush=True)
    return 0


def serve(options: argparse.Namespace) -> int:
    """For real use: with a database that the environment names, or with one of its own."""
    packages.ready()
    with installations.running() as (env, supervisor), web.listening(os.environ.get("BOOTMARK_HOST", "127.0.0.1:8600")) as socket:
        installations.welcome(env, socket.address)
        child_env = installations.for_children(env)
        web.run(supervisor, child_env, socket)
        for number in range(1, web.worker_count() + 1):
            name = f"worker-{number}"
            supervisor.run(Program(name, (str(packages.PYTHON), "-m", "bootmark.worker"), child_env, ROOT, supervisor.log(name)))
        supervisor.wait()
    return 0


def backup(options: argparse.Namespace) -> int:
    packages.ready()
    with installations.reached() as env:
        return python("-m", "bootmark.store.copies", "backup", str(Path(options.file).absolute()), env=env)


def restore(options: argparse.Namespace) -> int:
    packages.ready()
    with installations.reached() as env:
        return python("-m", "bootmark.store.copies", "restore", str(Path(options.file).absolute()), env=env)


@contextlib.contextmanager
def throw_away(**more: str) -> Iterator[dict[str, str]]:
    """The environment of a cluster of its own, which goes when it is done with."""
    with clusters.throw_away() as cluster:
        yield environment(cluster, BOOTMARK_LOCAL_STATIONS="1", **more)


def test(options: argparse.Namespace) -> int:
    packages.ready(testing=True)
    if options.fast:
        return python("-m", "tests.run", "--fast", env=environment())
    with throw_away(BOOTMARK_SECRET="only for tests, never used elsewhere") as env:
        return python("-m", *(["unittest", *options.names] if options.names else ["tests.run"]), env=env)


def release(options: argparse.Namespace) -> int:
    """Seal the catalogue's ids, and dump the demo farm as this version makes it, for tests to bring up to date ever after."""
    packages.ready(testing=True)
    with throw_away(BOOTMARK_SECRET="only for tests, never used elsewhere") as env:
        sealed = python("-m", "bootmark.core.catalogue", "--seal", options.version, env=env)
        return sealed or python("-m", "tests.store.dump_release", options.version, env=env)


def check(options: argparse.Namespace) -> int:
    packages.ready(testing=True)
    env = environment()
    tools = (
        ("lint", ["-m", "ruff", "check", "."]),
        ("format", ["-m", "ruff", "format", "--check", "."]),
        ("types", ["-m", "mypy"]),
        ("imports", ["-m", "unittest", "tests.test_imports"]),
        ("examples", ["-m", "unittest", "tests.core.test_examples"]),
    )
    failed = []
    for name, words in tools:
        step(name)
        if python(*words, env=env):
            failed.append(name)
    print(f"check: {'all clean' if not failed else 'mend ' + ', '.join(failed)}")
    return 1 if failed else 0


def shots(options: argparse.Namespace) -> int:
    packages.ready(testing=True)
    port = clusters.free_port()
    with demos.throw_away(port, logs=VAR / "shots") as (address, cluster):
        return python("-m", "tests.browser.shots", address, *options.names, env=environment(cluster))


def catalogue(options: argparse.Namespace) -> int:
    packages.ready()
    return python("-m", "bootmark.core.catalogue", *(["--write"] if options.write else []), env=environment())


def case(options: argparse.Namespace) -> int:
    """Cases from the standard input, answered on the standard output, where nothing else may stand."""
    with contextlib.redirect_stdout(sys.stderr):
        packages.ready()
    return python("-m", "bootmark.case", env=environment())


BENCHES = ["count", "farm", "hindcast", "identify", "kills", "load", "mutants", "nonsense", "pages", "photos", "season", "sheets", "taps"]
OWN_DATABASE = ("farm", "kills", "load", "nonsense", "pages", "taps")
"""Benches on a throw-away database."""


def bench(options: argparse.Namespace) -> int:
    packages.ready(testing=True)
    if options.name not in OWN_DATABASE:
        return python(f"bench/{options.name}.py", *options.words, env=environment() | {"PYTHONPATH": f"{ROOT / 'src'}{os.pathsep}{ROOT}"})
    with throw_away(BOOTMARK_SECRET=secrets.token_urlsafe(32)) as env:
        env |= {"PYTHONPATH": f"{ROOT / 'src'}{os.pathsep}{ROOT}"}
        return python(f"bench/{options.name}.py", *options.words, env=env)


def worker(options: argparse.Namespace) -> int:
    packages.ready()
    return python("-m", "bootmark.worker", env=environment())


def farm(options: argparse.Namespace) -> int:
    """Farms of the installation that './bootmark serve' runs."""
    if options.words[:1] == ["certificate"]:
        return _certificate(options.words[1:])
    packages.ready()
    with installations.reached() as env:
        return python("-m", "bootmark.farms", *options.words, env=env)


def _certificate(hosts: list[str]) -> int:
    """TLS for phones in the farm's own network, without a database."""
    if not hosts or hosts[0].startswith("-"):
        raise Stop("Name the host by which phones reach this machine: './bootmark farm certificate bootmark.lan 192.168.1.20'.")
    tls = certificate.make(installations.folder() / "tls", hosts)
    print(
        f"{tls.server}\n{tls.server_key}\n    are for the proxy: deploy/nginx.conf shows where. They last {certificate.SERVER_DAYS} days."
    )
    print(f"{tls.authority}\n    is what each phone is to trust, once; the page /trust says how. Keep {tls.authority_key} to yourself.")
    return 0


def outdated(options: argparse.Namespace) -> int:
    """Which pinned packages are behind the registries; asks the network."""
    packages.ready(testing=True)
    step("Python packages behind PyPI")
    code = python("-m", "pip", "list", "--outdated", "--disable-pip-version-check", env=environment())
    if shutil.which("npm"):
        step("Packages of assets/ behind npm")
        # npm answers 1 where some are behind: that is what was asked, and no failure.
        subprocess.run(["npm", "outdated"], cwd=ROOT / "assets")
    return code


def assets(options: argparse.Namespace) -> int:
    """Rebuild the committed scripts and styles; the only command that needs npm."""
    if not shutil.which("npm"):
        raise Stop("npm is not installed: 'apt-get install npm'. It is needed only to rebuild the committed assets.")
    return subprocess.run(["sh", "assets/build.sh", *(["--check"] if options.check else [])], cwd=ROOT).returncode


def parser() -> argparse.ArgumentParser:
    top = argparse.ArgumentParser(prog="./bootmark", description="Scouting plants for insect and mite pests.")
    commands = top.add_subparsers(required=True, metavar="command")

    def add(name: str, help_: str, action: object) -> argparse.ArgumentParser:
        command = commands.add_parser(name, help=help_)
        command.set_defaults(action=action)
        return command

    command = add("demo", "run the demo farm on this machine", demo)
    command.add_argument("--port", type=int, default=DEMO_PORT)
    command.add_argument("--reset", action="store_true", help="throw the demo's data away and load it anew")
    add("serve", "run for real use, on a database of its own or the one that the environment names", serve)
    add("backup", "copy the whole installation's database into a file", backup).add_argument("file")
    add("restore", "fill an installation that is empty yet from such a file", restore).add_argument("file")
    add("worker", "run only the background worker", worker)
    command = add("test", "run every test on a throw-away database, or the named modules", test)
    command.add_argument("names", nargs="*")
    command.add_argument("--fast", action="store_true", help="the core alone, without a database")
    add("release", "dump this version's demo farm for the tests of later ones", release).add_argument("version")
    add("check", "lint, format, types, import rules and the core's examples", check)
    add("shots", "remake docs/screenshots", shots).add_argument("names", nargs="*")
    add("case", "answer cases, JSON lines in and out, without a database", case)
    command = add("catalogue", "what the catalogue covers and rests on", catalogue)
    command.add_argument(
        "--write", action="store_true", help="bring up to date what is made from it: the editors' schemas, the list of ids"
    )
    command = add("bench", "run one benchmark, on the demo where it needs one", bench)
    command.add_argument(
        "name",
        choices=BENCHES,
    )
    command.add_argument("words", nargs="*", help="the benchmark's own words, as its file tells")
    command = add("farm", "make, list and close farms, set a forgotten password, add a sample farm", farm)
    command.add_argument(
        "words", nargs=argparse.REMAINDER, help="new, list, password, sample, close or erase, with --help for each; or certificate HOST ..."
    )
    add("outdated", "which pinned packages are behind the registries", outdated)
    add("assets", "rebuild the committed styles and scripts", assets).add_argument("--check", action="store_true")
    return top


def main() -> int:
    options = parser().parse_args()
    try:
        return int(options.action(options))
    except Stop as reason:
        print(f"\n{reason}", file=sys.stderr)
        return 1
    except OSError as error:
        print(f"\nThe machine refused ({error}): make room on the disk or check the rights, then run this again.", file=sys.stderr)
        return 1


if __name__ == "__main__":
    sys.exit(main())
