// Package referee finds the programs of others that tests check ours against.
package referee

import (
	"os"
	"os/exec"
	"testing"
)

// All is the name of the variable with which scripts/test says that every program is there.
const All = "MULE_REFEREES"

// Program is the path of a program, from Debian's package of the name. A test that wants
// one which is not installed is skipped, but under scripts/test it fails.
func Program(tb testing.TB, name, debian string) string {
	tb.Helper()
	path, err := exec.LookPath(name)
	there(tb, err, name, debian)
	return path
}

// Module makes sure of a module of Python and is the path of the interpreter.
func Module(tb testing.TB, name, debian string) string {
	tb.Helper()
	python := Program(tb, "/usr/bin/python3", "python3") // Debian's own, which has Debian's modules
	there(tb, exec.Command(python, "-c", "import "+name).Run(), name, debian)
	return python
}

func there(tb testing.TB, err error, name, debian string) {
	tb.Helper()
	switch {
	case err == nil:
	case os.Getenv(All) != "":
		tb.Fatalf("%s is wanted, of Debian's package %s: %v", name, debian, err)
	default:
		tb.Skipf("%s is not installed: Debian's package %s", name, debian)
	}
}
