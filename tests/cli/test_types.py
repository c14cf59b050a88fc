"""`carry --types`: what the project's own compiler says of the new files and of their callers."""

from __future__ import annotations

import json
import subprocess
from pathlib import Path
from typing import Any

import pytest

from clean_carry.verify.node import npm

PACKAGE = {
    "name": "gullmoor",
    "devDependencies": {"typescript": "5.4.5", "@types/react": "18.2.79"},
}
OPTIONS = {
    "compilerOptions": {
        "strict": True, "jsx": "react", "esModuleInterop": True, "skipLibCheck": True,
        "target": "ES2020", "moduleResolution": "node", "types": [],
    }
}  # fmt: skip
BERTH = """import React from 'react';

interface Props {
  pier: string;
  onMoor?: (at: number) => void;
}

export class Berth extends React.Component<Props> {
  static defaultProps = { pier: 'Skail' };

  render() {
    const { pier, onMoor } = this.props;
    return <button onClick={() => onMoor && onMoor(1)}>{pier}</button>;
  }
}
"""
CALLER = """import React from 'react';
import { Berth } from './Berth';

export const Quay = () => <Berth onMoor={(at) => at + 1} />;
"""
HOLDER = """import React, { createRef } from 'react';
import { Berth } from './Berth';

const berth = createRef<Berth>();
export const Held = () => <Berth ref={berth} pier="Holm" />;
"""


@pytest.fixture(scope="module")
def project(tmp_path_factory: pytest.TempPathFactory) -> Path:
    folder = tmp_path_factory.mktemp("typed")
    (folder / "package.json").write_text(json.dumps(PACKAGE))
    (folder / "tsconfig.json").write_text(json.dumps(OPTIONS))
    options = ["--ignore-scripts", "--no-audit", "--no-fund", "--loglevel=error"]
    subprocess.run([*npm(), "install", *options], cwd=folder, check=True)
    return folder


def checked(run: Any, folder: Path, *more: str) -> Any:
    (folder / "Berth.function.tsx").unlink(missing_ok=True)
    return run("carry", str(folder / "Berth.tsx"), "--to", "jsx-function", "--types", *more)


def test_a_component_and_its_callers_type_check(run: Any, project: Path) -> None:
    (project / "Berth.tsx").write_text(BERTH)
    (project / "Quay.tsx").write_text(CALLER)
    (project / "Held.tsx").unlink(missing_ok=True)
    done = checked(run, project)
    assert done.returncode == 0, done.stdout + done.stderr
    assert done.stdout.endswith("types: no error more\n")
    assert json.loads(checked(run, project, "--json").stdout)["types"] == []


def test_a_caller_that_names_the_class_is_told(run: Any, project: Path) -> None:
    (project / "Berth.tsx").write_text(BERTH)
    (project / "Held.tsx").write_text(HOLDER)
    done = checked(run, project)
    assert done.returncode == 1
    assert "Held.tsx:4:25: type error: 'Berth' refers to a value" in done.stdout
    faults = json.loads(checked(run, project, "--json").stdout)["types"]
    assert {Path(fault["file"]).name for fault in faults} == {"Held.tsx"}


def test_what_was_wrong_before_is_not_told(run: Any, project: Path) -> None:
    (project / "Berth.tsx").write_text(BERTH.replace("{pier}<", "{pier as number}<"))
    (project / "Held.tsx").unlink(missing_ok=True)
    assert "types: no error more" in checked(run, project).stdout


def test_a_project_without_a_compiler(run: Any, tmp_path: Path) -> None:
    (tmp_path / "package.json").write_text('{"name": "gullmoor"}')
    (tmp_path / "Berth.tsx").write_text(BERTH)
    done = checked(run, tmp_path, "--write")
    assert done.returncode == 4, done.stdout
    assert "no typescript to check types with" in done.stderr
    assert "npm install --save-dev typescript" in done.stderr
    assert not (tmp_path / "Berth.function.tsx").exists()
