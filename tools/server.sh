# Shared by the commands at the top of the tree: needs the tools, builds the server, names its program.

need_tools() {
  for tool in dotnet node npm; do
    command -v "$tool" >/dev/null || { echo "$1: $tool is missing. Install the .NET SDK 10, Node 20 and npm." >&2; exit 1; }
  done
}

# Builds quietly; says what went wrong when it does.
build_server() {
  mkdir -p var
  if ! dotnet build src/PorchLight.Server -c Release --nologo -v quiet -p:RunAnalyzers=false > var/build.log 2>&1; then
    tail -n 40 var/build.log >&2
    echo "$1: the build failed; the whole log is var/build.log." >&2
    exit 1
  fi
}

# Compiles what was built to machine code, and names the program; the usual one where the compiler cannot be had.
compile_ahead() {
  if dotnet build tools/PorchLight.Ahead -c Release --nologo -v quiet > var/ahead.log 2>&1; then
    echo bin/Ahead/PorchLight.Server.dll
  else
    echo bin/Release/net10.0/PorchLight.Server.dll
  fi
}

# The program, built when it is not there yet.
server_program() {
  local program=src/PorchLight.Server/bin/Release/net10.0/PorchLight.Server.dll
  if [ ! -f "$program" ]; then need_tools "$1"; build_server "$1"; fi
  realpath "$program"
}

# A path as the person wrote it, from where the person stands.
from_where_you_stand() {
  case "$1" in /*) echo "$1" ;; *) echo "$2/$1" ;; esac
}
