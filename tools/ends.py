"""Looks for numbers that break something: projects at the ends of all ranges over pictures, parts
and clip frames.

usage: .venv/bin/python tools/ends.py [EXAMPLES] [SEED] [finite | seen]

finite: every example is rendered whole, in part and reduced, seen in every view, counted and
    judged; all of it must be finite.
seen: what every view shows, in part and whole, is at most a level from what is exported; displays
and working spaces too. Runs in processes of its own, so that a crash is seen as one; prints what
was tried and the smallest example that breaks something.
"""

import pathlib
import subprocess
import sys
import traceback
import warnings

HERE = pathlib.Path(__file__).parent.parent
#: Examples of one process.
EACH = 1000


#: A display may tone-map; so may none. The same for working spaces.
DISPLAYS = ("", "", "sRGB - Display / ACES 1.0 - SDR Video", "sRGB - Display / Un-tone-mapped")
WORKINGS = ("", "", "ACEScg")


def in_this_process(examples: int, seed: int, what: str) -> int:
    """Try some examples; 0 when all hold."""
    sys.path[:0] = [str(HERE / "tests"), str(HERE / "src")]
    import ends
    import hypothesis
    import seen_and_exported
    from hypothesis import strategies as st

    tried = {"stills": 0, "clip frames": 0}
    broken: dict[str, str] = {}  # where it broke, and the smallest example so far

    @hypothesis.seed(seed)
    @hypothesis.settings(
        max_examples=examples,
        deadline=None,
        database=None,
        print_blob=False,
        suppress_health_check=list(hypothesis.HealthCheck),
    )
    @hypothesis.given(
        ends.projects(),
        ends.pictures(),
        st.sampled_from((1, 1, 3)),
        st.integers(0, 2),
        st.sampled_from(DISPLAYS),
        st.sampled_from(WORKINGS),
    )
    def holds(project, planes, frames, number, display, working):
        tried["clip frames" if frames > 1 else "stills"] += 1
        try:
            warnings.simplefilter(
                "error", RuntimeWarning
            )  # of NumPy: what overflows there is about to be no number
            if what == "seen":
                seen_and_exported.check(
                    project.but(display=display, working=working),
                    planes,
                    frames,
                    min(number, frames - 1),
                )
            else:
                ends.check(project, planes, frames, min(number, frames - 1))
        except Exception as found:
            last = traceback.extract_tb(found.__traceback__)[-1]
            words = project.model_dump_json(exclude_defaults=True)
            where = f"{pathlib.Path(last.filename).name}:{last.lineno} {type(found).__name__}"
            said = f"{' '.join(str(found).split())[:200]}\n    {words}"
            broken[where] = min(broken.get(where, said), said, key=len)
            raise

    try:
        holds()
    except (Exception, ExceptionGroup):
        for where, words in broken.items():
            print(f"{where}: {words[:1500]}")
    print(", ".join(f"{count} {kind}" for kind, count in tried.items()), flush=True)
    return 1 if broken else 0


def main() -> int:
    if sys.argv[1:2] == ["--here"]:
        return in_this_process(int(sys.argv[2]), int(sys.argv[3]), sys.argv[4])
    what = sys.argv[3] if len(sys.argv) > 3 else "finite"
    examples, seed = (
        int(sys.argv[1]) if len(sys.argv) > 1 else 20_000,
        int(sys.argv[2]) if len(sys.argv) > 2 else 1,
    )
    broken = 0
    for start in range(0, examples, EACH):
        done = subprocess.run(
            [
                sys.executable,
                __file__,
                "--here",
                str(min(EACH, examples - start)),
                str(seed + start // EACH),
                what,
            ]
        )
        broken += done.returncode != 0
        if done.returncode < 0:
            print(
                f"the process ended with signal {-done.returncode}, seed {seed + start // EACH}",
                flush=True,
            )
    print(
        f"{examples} examples asked for, {broken} processes of {-(-examples // EACH)} found "
        "something"
    )
    return 1 if broken else 0


if __name__ == "__main__":
    sys.exit(main())
