"""What the application is made of: licences, a software bill of materials, known advisories.

Writes THIRD_PARTY.md and the bill (CycloneDX) that ships in the wheel; ``--check`` only says
whether they are up to date.
"""

import hashlib
import importlib.metadata
import json
import re
import subprocess
import sys
import tomllib
from dataclasses import dataclass
from pathlib import Path

from cyclonedx.schema import SchemaVersion
from cyclonedx.validation.json import JsonStrictValidator

ROOT = Path(__file__).parent.parent
STATIC = ROOT / "src/wattmetron/shell/static"
BILL = ROOT / "src/wattmetron/sbom.cdx.json"
LIST = ROOT / "THIRD_PARTY.md"
ASSETS = (
    ("htmx", "htmx.org", "0BSD", "vendor/htmx.min.js"),
    ("idiomorph", "idiomorph", "0BSD", "vendor/idiomorph-ext.min.js"),
    ("Alpine.js, CSP build", "@alpinejs/csp", "MIT", "vendor/alpine-csp.min.js"),
    ("Tailwind CSS, base styles", "tailwindcss", "MIT", "app.css"),
    ("Source Sans 3", "@fontsource-variable/source-sans-3", "OFL-1.1", "fonts/text-*.woff2"),
    ("Inconsolata", "@fontsource/inconsolata", "OFL-1.1", "fonts/figures-*.woff2"),
)
LICENCES = {
    "MIT License": "MIT",
    "BSD License": "BSD-3-Clause",
    "BSD 3-Clause License": "BSD-3-Clause",
    "Apache Software License": "Apache-2.0",
    "Apache License 2.0": "Apache-2.0",
    "ISC License (ISCL)": "ISC",
    "Python Software Foundation License": "PSF-2.0",
}
ELSEWHERE = "see its own files"


@dataclass(frozen=True)
class Package:
    """A Python package that the application needs, direct or not."""

    name: str
    version: str
    licence: str


def packages() -> list[Package]:
    """Those of the lock file, with the licence that each names itself."""
    pinned = re.findall(r"^([\w.-]+)==([^\s;\\]+)", (ROOT / "requirements.lock").read_text(), re.M)
    return [Package(name, version, _licence(name)) for name, version in sorted(pinned)]


def _licence(name: str) -> str:
    try:
        told = importlib.metadata.metadata(name)
    except importlib.metadata.PackageNotFoundError:
        return ELSEWHERE
    classified = [
        line.rpartition(" :: ")[2]
        for line in told.get_all("Classifier", [])
        if line.startswith("License")
    ]
    short = told.get("License", "")
    words = told.get("License-Expression") or next(iter(classified), "") or short
    words = words.strip().splitlines()[0] if words.strip() else ELSEWHERE
    return LICENCES.get(words, words)


def assets() -> list[tuple[str, str, str, str, list[Path]]]:
    """Name, package, version, licence and files of what is copied into the application."""
    pinned = json.loads((ROOT / "assets/package.json").read_text())["devDependencies"]
    return [
        (name, package, pinned[package], licence, sorted(STATIC.glob(files)))
        for name, package, licence, files in ASSETS
    ]


def third_party() -> str:
    lines = [
        "# What the application is made of",
        "",
        "Written by `make audit` from the lock files; the same as a CycloneDX bill of materials is",
        "in the package as `wattmetron/sbom.cdx.json`.",
        "",
        "## Ships within it",
        "",
        "| what | files | version | licence |",
        "| --- | --- | --- | --- |",
    ]
    lines += [
        f"| {name} | {', '.join(f'`{path.relative_to(STATIC)}`' for path in files)} | {version}"
        f" | {licence} |"
        for name, _, version, licence, files in assets()
    ]
    lines += [
        "",
        "## Python packages that are installed beside it",
        "",
        "| package | version | licence |",
        "| --- | --- | --- |",
        *(f"| {own.name} | {own.version} | {own.licence} |" for own in packages()),
        "",
    ]
    return "\n".join(lines)


def bill() -> str:
    """The bill of materials; nothing in it depends on when or where it was made."""
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    own = f"pkg:pypi/wattmetron@{project['version']}"
    components = [
        {
            "type": "library",
            "bom-ref": f"pkg:pypi/{package.name}@{package.version}",
            "name": package.name,
            "version": package.version,
            "purl": f"pkg:pypi/{package.name}@{package.version}",
            "licenses": [{"license": {"name": package.licence}}],
        }
        for package in packages()
    ]
    components += [
        {
            "type": "library",
            "bom-ref": f"pkg:npm/{package.replace('@', '%40')}@{version}",
            "name": package,
            "version": version,
            "purl": f"pkg:npm/{package.replace('@', '%40')}@{version}",
            "licenses": [{"license": {"id": licence}}],
            "components": [
                {
                    "type": "file",
                    "name": str(path.relative_to(STATIC)),
                    "hashes": [
                        {
                            "alg": "SHA-256",
                            "content": hashlib.sha256(path.read_bytes()).hexdigest(),
                        }
                    ],
                }
                for path in files
            ],
        }
        for _, package, version, licence, files in assets()
    ]
    document = {
        "bomFormat": "CycloneDX",
        "specVersion": "1.6",
        "version": 1,
        "metadata": {
            "component": {
                "type": "application",
                "bom-ref": own,
                "name": "wattmetron",
                "version": project["version"],
                "licenses": [{"license": {"id": project["license"]}}],
            }
        },
        "components": components,
    }
    text = json.dumps(document, indent=1) + "\n"
    wrong = JsonStrictValidator(SchemaVersion.V1_6).validate_str(text)
    if wrong is not None:
        raise SystemExit(f"The bill of materials is not valid: {wrong}")
    return text


def advisories() -> bool:
    """Whether nothing is known against the locked packages; says so where nobody could be asked."""
    asked = subprocess.run(
        [
            *(sys.executable, "-m", "pip_audit", "--progress-spinner", "off", "--timeout", "20"),
            *("--disable-pip", "--require-hashes", "-r", str(ROOT / "requirements.lock")),
        ],
        capture_output=True,
        text=True,
        check=False,
    )
    told = (asked.stdout + asked.stderr).strip()
    if "No known vulnerabilities" in told:
        print("No advisory is known against the locked packages.")
        return True
    if "Found" in told and "known vulnerabilit" in told:
        print(told)
        return False
    print("Advisories were not checked: no database of them could be reached.")
    return True


def main() -> int:
    written = {LIST: third_party(), BILL: bill()}
    if "--check" in sys.argv:
        stale = [path.name for path, text in written.items() if path.read_text() != text]
        print("\n".join(f"{name} is not up to date: run “make audit”." for name in stale))
        return 1 if stale else 0
    for path, text in written.items():
        path.write_text(text)
    sound = subprocess.run([sys.executable, "-m", "pip", "check"], check=False).returncode == 0
    return 0 if advisories() and sound else 1


if __name__ == "__main__":
    sys.exit(main())
