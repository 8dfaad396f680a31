# Sourced by ./start, ./check and ./amber-sieve: makes .venv from the lock files, adds missing system libraries, and compiles the
# kernels that are needed first, beside the rest of the packages. Does nothing the second time. SETUP=dev also installs what the
# tests need.
set -eu
root=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
venv=$root/.venv
python=$venv/bin/python

# What Qt, the codecs and the thread pool look for on a bare Debian 12.
packages="libegl1 libgl1 libglib2.0-0 libdbus-1-3 libfontconfig1 libfreetype6 libxkbcommon0 libxkbcommon-x11-0 libxcb-cursor0 libxcb-icccm4 libxcb-image0 libxcb-keysyms1 libxcb-randr0 libxcb-render-util0 libxcb-shape0 libxcb-xinerama0 libxcb-xkb1 libx11-xcb1 libgomp1"

install_packages() {
    line="apt-get install -y --no-install-recommends $*"
    if command -v apt-get >/dev/null && [ "$(id -u)" = 0 ]; then
        echo "Installing system packages: $*"
        { apt-get update -qq && DEBIAN_FRONTEND=noninteractive $line -qq; } >/dev/null 2>&1 && return 0
    elif command -v apt-get >/dev/null && sudo -n true 2>/dev/null; then
        echo "Installing system packages: $*"
        { sudo apt-get update -qq && sudo DEBIAN_FRONTEND=noninteractive $line -qq; } >/dev/null 2>&1 && return 0
    fi
    echo "Some system packages are missing. Run this line, then try again:" >&2
    echo "    sudo $line" >&2
    exit 1
}

missing_libraries() {
    find "$venv"/lib/python3*/site-packages/PyQt6/Qt6 -name 'libqxcb.so' -o -name 'libqoffscreen.so' -o -name 'libQt6Gui.so.6' 2>/dev/null | xargs -r ldd 2>/dev/null | grep -q 'not found' && return 0
    ! ldconfig -p 2>/dev/null | grep -q 'libgomp\.so\.1'
}

set_up() {
    locks="$root/requirements.lock"
    [ "${SETUP:-}" = dev ] && locks="$locks $root/requirements-dev.lock"
    stamp=$(cat $locks "$root/tools/setup.sh" | sha256sum | cut -c1-16)
    kind=${SETUP:-run}
    [ -x "$python" ] && grep -qs "$stamp" "$venv/.ready-$kind" && return 0
    command -v python3 >/dev/null || install_packages python3 python3-venv
    if ! python3 -c 'import sys; sys.exit(sys.version_info < (3, 11))'; then
        echo "Amber Sieve needs Python 3.11 or newer; python3 here is $(python3 --version 2>&1)." >&2
        exit 1
    fi
    if [ ! -x "$python" ]; then
        python3 -c 'import ensurepip, venv' 2>/dev/null || install_packages python3-venv
        echo "Making .venv"
        python3 -m venv "$venv"
    fi
    echo "Installing the packages that the kernels need: about 20 s"
    pip_install $(grep -hE '^(numpy|numba|llvmlite|scipy|opencv-python-headless|platformdirs)==' "$root/requirements.lock")
    echo "Installing the other packages, and compiling beside: about a minute"
    PYTHONPATH="$root/src" "$python" -m amber_sieve.warm first &
    compiling=$!
    wanted=""
    for lock in $locks; do wanted="$wanted -r $lock"; done
    pip_install $wanted
    missing_libraries && install_packages $packages
    # The tests read exported clips with tools that are not ours.
    if [ "$kind" = dev ] && ! command -v ffprobe >/dev/null; then install_packages ffmpeg; fi
    # They make a certificate for a farm of their own.
    if [ "$kind" = dev ] && ! command -v openssl >/dev/null; then install_packages openssl; fi
    # And they go through the window as a screen reader does, on a display and a message bus of their own.
    if [ "$kind" = dev ] && ! { command -v xvfb-run && command -v dbus-run-session && [ -e /usr/libexec/at-spi-bus-launcher ]; } >/dev/null; then
        install_packages xvfb xauth dbus dbus-bin dbus-daemon at-spi2-core
    fi
    wait "$compiling"
    echo "$stamp" > "$venv/.ready-$kind"
}

# What Python compiles of the packages is left until it is imported: most of it never is.
pip_install() {
    "$python" -m pip install -q --disable-pip-version-check --no-compile --no-deps "$@"
}

set_up
export PYTHONPATH="$root/src"
# No plugins are used; looking for them costs a fifth of a second at every start.
export PYDANTIC_DISABLE_PLUGINS=__all__
