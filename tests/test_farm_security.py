"""A farm whose workers accept work from their own scheduler only: Dask over TLS, set up as
docs/terminal.md says.
"""

import asyncio
import contextlib
import json
import os
import pathlib
import signal
import subprocess
import sys
import time
import unittest

import distributed
import numpy as np
from common import ROOT, FolderCase
from distributed.comm import connect
from distributed.security import Security
from PIL import Image

from amber_sieve.project import storage
from amber_sieve.project.model import Adjust, Bands, Light, Project, Sieve


def certificate(folder: pathlib.Path, name: str) -> tuple[pathlib.Path, pathlib.Path]:
    """Make the certificate and key of a farm, by the line that docs/terminal.md gives."""
    text = (ROOT / "docs" / "terminal.md").read_text()
    line = next(
        line.strip() for line in text.splitlines() if line.strip().startswith("openssl req")
    )
    words = line.replace("farm", name).split()
    subprocess.run(words, check=True, cwd=folder, capture_output=True)
    return folder / f"{name}.pem", folder / f"{name}-key.pem"


def settings(folder: pathlib.Path, cert: pathlib.Path, key: pathlib.Path) -> dict[str, str]:
    """Return the environment of a machine of the farm: Dask's settings as docs/terminal.md has
    them.
    """
    text = (ROOT / "docs" / "terminal.md").read_text()
    block = text[text.index("    distributed:") : text.index("    dask scheduler --protocol tls")]
    lines = [line[4:] for line in block.splitlines() if line.startswith("    ")]
    held = (
        "\n".join(lines)
        .replace("/farm/farm.pem", str(cert))
        .replace("/farm/farm-key.pem", str(key))
    )
    place = folder / "dask"
    place.mkdir(exist_ok=True)
    (place / "farm.yaml").write_text(held + "\n")
    return os.environ | {"DASK_CONFIG": str(place), "PYTHONPATH": str(ROOT / "src")}


class SecureFarmTest(FolderCase):
    def setUp(self):
        super().setUp()
        cert, key = certificate(self.folder, "farm")
        self.own = settings(self.folder, cert, key)
        self.processes: list[subprocess.Popen] = []
        self.addCleanup(self.end)
        told = self.folder / "scheduler.json"
        self.begin(
            "scheduler",
            "--protocol",
            "tls",
            "--port",
            "0",
            "--no-dashboard",
            "--scheduler-file",
            told,
        )
        end = time.monotonic() + 60
        while not (told.exists() and told.read_text().endswith("}")) and time.monotonic() < end:
            time.sleep(0.1)
        self.address = json.loads(told.read_text())["address"]
        self.begin("worker", self.address, "--nthreads", "1", "--no-dashboard")

    def begin(self, *words: object) -> None:
        dask = pathlib.Path(sys.executable).with_name("dask")
        quiet = {"stdout": subprocess.DEVNULL, "stderr": subprocess.DEVNULL}
        self.processes.append(
            subprocess.Popen(
                [dask, *map(str, words)],
                env=self.own,
                cwd=self.folder,
                start_new_session=True,
                **quiet,
            )
        )

    def end(self) -> None:
        for process in self.processes:
            with contextlib.suppress(ProcessLookupError):
                os.killpg(process.pid, signal.SIGKILL)
            process.wait()

    def run_batch(self, environment: dict[str, str]) -> subprocess.CompletedProcess:
        words = [
            sys.executable,
            "-m",
            "amber_sieve.terminal.main",
            "batch",
            self.folder / "p.sieve",
            self.folder / "in",
            "-o",
            self.folder / "out",
        ]
        return subprocess.run(
            [*map(str, words), "--scheduler", self.address],
            env=environment,
            capture_output=True,
            text=True,
            timeout=120,
        )

    def test_work_with_the_farms_certificate_is_done_and_any_other_is_refused(self):
        self.assertTrue(self.address.startswith("tls://"), self.address)
        (self.folder / "in").mkdir()
        for number in range(3):
            Image.fromarray(np.full((20, 30, 3), 60 + number, np.uint8)).save(
                self.folder / "in" / f"{number}.png"
            )
        bands = Bands(luminance={"on": True, "corners": (-1, 0, 100, 101)})
        storage.save(
            Project(stack=(Sieve(bands=bands, adjust=Adjust(light=Light(exposure=1.0))),)),
            self.folder / "p.sieve",
        )
        done = self.run_batch(self.own)
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        self.assertEqual(len(list((self.folder / "out").glob("*.png"))), 3)
        # Nobody else: without a certificate, or with one of another farm.
        (self.folder / "other").mkdir()
        theirs = settings(self.folder / "other", *certificate(self.folder / "other", "theirs"))
        for stranger in (os.environ | {"PYTHONPATH": str(ROOT / "src")}, theirs):
            done = self.run_batch(stranger)
            self.assertEqual(done.returncode, 1)
            self.assertEqual(done.stderr.count("\n"), 1, done.stderr[-500:])
            self.assertIn("cannot be reached", done.stderr)
        # Nor may the worker be spoken to past its scheduler.
        mine = Security(
            tls_ca_file=str(self.folder / "farm.pem"),
            tls_client_cert=str(self.folder / "farm.pem"),
            tls_client_key=str(self.folder / "farm-key.pem"),
        )
        with distributed.Client(self.address, security=mine, timeout="20s") as client:
            client.wait_for_workers(1, timeout=60)
            [worker] = client.scheduler_info()["workers"]

        async def past(**how) -> None:
            comm = await connect(
                worker.replace("tls://", how.pop("scheme", "tls://")), timeout="5s", **how
            )
            await comm.write({"op": "identity"})
            await comm.read()

        for how in (
            {"scheme": "tcp://"},
            {
                "ssl_context": Security(
                    tls_ca_file=str(self.folder / "other" / "theirs.pem")
                ).get_connection_args("client")["ssl_context"]
            },
        ):
            with self.assertRaises((OSError, TypeError), msg=how):
                asyncio.run(past(**how))


if __name__ == "__main__":
    unittest.main()
