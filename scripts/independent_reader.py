"""Prints the text of an OpenDocument file as Debian's python3-odf reads it."""
import sys
from odf import teletype
from odf.opendocument import load

print(teletype.extractText(load(sys.argv[1]).body))
