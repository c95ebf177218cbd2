"""A private authority and a certificate of it, so that phones in the farm's own network come by TLS: made with Debian's openssl."""

import ipaddress
import re
import shutil
import subprocess
from dataclasses import dataclass
from pathlib import Path

from bootmark.launch.say import Stop

AUTHORITY_DAYS, SERVER_DAYS = 3650, 397
"""Browsers take no server's certificate that lasts longer. Source: CA/Browser Forum, ballot SC31, 2020."""
HOST = re.compile(r"[a-zA-Z0-9]([a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?(\.[a-zA-Z0-9]([a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?)*")


@dataclass(frozen=True)
class Tls:
    """Where the files of an installation's TLS are."""

    folder: Path

    @property
    def authority(self) -> Path:
        """What a phone is to trust."""
        return self.folder / "authority.crt"

    @property
    def authority_key(self) -> Path:
        return self.folder / "authority.key"

    @property
    def server(self) -> Path:
        """The server's own certificate, with the authority's behind it."""
        return self.folder / "server.crt"

    @property
    def server_key(self) -> Path:
        return self.folder / "server.key"


def named(host: str) -> str:
    """A host as a certificate tells it. Raises Stop where it is neither an address nor a name."""
    try:
        return f"IP:{ipaddress.ip_address(host)}"
    except ValueError:
        if not HOST.fullmatch(host) or len(host) > 253:
            raise Stop(f"{host[:60]!r} is no host: give a name such as bootmark.lan, or an address such as 192.168.1.20.") from None
        return f"DNS:{host}"


def make(folder: Path, hosts: list[str]) -> Tls:
    """A certificate for these hosts, by an authority that is made once and kept. Raises Stop."""
    if not shutil.which("openssl"):
        raise Stop("openssl is not installed: 'apt-get install openssl'.")
    names = ",".join(named(host) for host in hosts)
    tls = Tls(folder)
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    if not tls.authority.exists():
        _openssl(
            *("req", "-x509", "-newkey", "ec", "-pkeyopt", "ec_paramgen_curve:P-256", "-nodes", "-days", str(AUTHORITY_DAYS)),
            *("-subj", "/CN=Bootmark, this farm's own", "-keyout", str(tls.authority_key), "-out", str(tls.authority)),
            *("-addext", "basicConstraints=critical,CA:TRUE,pathlen:0", "-addext", "keyUsage=critical,keyCertSign,cRLSign"),
        )
    request, extensions, own = (folder / name for name in ("server.csr", "server.ext", "server.own"))
    _openssl(
        *("req", "-newkey", "ec", "-pkeyopt", "ec_paramgen_curve:P-256", "-nodes", "-subj", f"/CN={hosts[0]}"[:68]),
        *("-keyout", str(tls.server_key), "-out", str(request)),
    )
    extensions.write_text(f"subjectAltName={names}\nbasicConstraints=CA:FALSE\nextendedKeyUsage=serverAuth\nkeyUsage=digitalSignature\n")
    _openssl(
        *("x509", "-req", "-in", str(request), "-CA", str(tls.authority), "-CAkey", str(tls.authority_key), "-CAcreateserial"),
        *("-days", str(SERVER_DAYS), "-extfile", str(extensions), "-out", str(own)),
    )
    tls.server.write_bytes(own.read_bytes() + tls.authority.read_bytes())
    for file in (request, extensions, own):
        file.unlink()
    for key in (tls.authority_key, tls.server_key):
        key.chmod(0o600)
    tls.authority.chmod(0o644)
    return tls


def _openssl(*words: str) -> None:
    done = subprocess.run(["openssl", *words], capture_output=True, text=True)
    if done.returncode:
        raise Stop(f"openssl refused ({(done.stderr.strip().splitlines() or ['no reason given'])[-1]}).")
