#!/usr/bin/env bash
# Fetches OpenDocument texts and presentations out of Debian packages into a folder: real files that nobody on this project wrote.
set -eu
folder=${1:?usage: fetch-corpus.sh FOLDER}
mkdir -p "$folder" && cd "$folder"
work=$(mktemp -d); trap 'rm -rf "$work"' EXIT
[ -n "$(ls /var/lib/apt/lists/*_Packages* 2>/dev/null)" ] || apt-get update -qq >/dev/null
for package in aprx davical-doc discosnp examl fonts-sil-charis-compact gtkwave hspell libtrompeloeil-cpp-dev live-manual-odf python3-relatorio simrisc w1retap-doc whitedune-docs yoshimi-doc; do
  (cd "$work" && apt-get download -qq "$package" >/dev/null 2>&1) || { echo "no package $package" >&2; continue; }
  mkdir "$work/$package"
  dpkg-deb --fsys-tarfile "$work/$package"_*.deb | tar -x -C "$work/$package" --wildcards '*.od[tpg]' 2>/dev/null || true
  find "$work/$package" -type f -name '*.od[tpg]' -print0 | while IFS= read -r -d '' file; do cp "$file" "${package}__$(basename "$file" | tr ' ,' '__')"; done
done
