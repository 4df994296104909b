// Command mule plans the conversion of a motorcycle for a trip: it serves the
// pages, checks plan files and runs the calculators.
package main

import (
	"errors"
	"fmt"
	"io"
	"os"
)

// errUse is a wrong way of calling; its text is the whole of what is printed.
type errUse struct{ text string }

func (e errUse) Error() string { return e.text }

// exit ends the program with a code and no further word.
type exit int

func (e exit) Error() string { return fmt.Sprintf("exit %d", int(e)) }

func main() {
	os.Exit(status(run(os.Args[1:], os.Stdin, os.Stdout, os.Stderr), os.Stderr))
}

// status says on one line what went wrong and is the exit code: 2 for a wrong
// way of calling or a bad input, 1 for what failed.
func status(err error, errOut io.Writer) int {
	var code exit
	var use errUse
	switch {
	case err == nil:
		return 0
	case errors.As(err, &code):
		return int(code)
	}
	fmt.Fprintln(errOut, "mule:", err)
	if errors.As(err, &use) {
		return 2
	}
	return 1
}

const help = `usage: mule COMMAND

  serve [FLAGS]           serve the pages; needs MULE_DSN and a migrated database
  demo                    start a private database, load the demo data, serve
  migrate                 bring the database of MULE_DSN to this version
  backup FILE|-           write the whole database of MULE_DSN to a file, while it is served
  restore FILE|-          read such a file, once it is known to be whole, into an empty database
  export -rider NAME|-id ID [-dir DIR]
                          write a rider's plans as plan files
  check [-format text|json] [-as-of DATE] FILE|-
                          evaluate a plan file; exit 1 when something says stop
  calc NAME key=value …   one calculator; mule calc -help lists them

Flags of serve:
  -tls-cert FILE -tls-key FILE   speak https
  -proxy CIDR[,CIDR]             believe proxies from there what they forward
  -hsts                          tell browsers to come by https only
  -site URL -hosts NAME[,NAME]   where riders find it, and what other names it answers by
  -smtp HOST:PORT -from ADDRESS  send letters, with MULE_SMTP_USER and MULE_SMTP_PASSWORD
  -contact URI                   whom to tell of a hole, in /.well-known/security.txt
  -idle DURATION                 after which a rider who is not seen is signed out (168h)
  -metrics ADDRESS               /metrics and /debug/pprof, on loopback
  -slow DURATION                 log requests that take so long with their queries (1s)
  -plans N -bikes N -parts N -revisions N -readings N -tracks N -megabytes N
                                 what a rider may keep (500, 100000 a plan, 5000 a log, 500, 1024)
  -gogc PERCENT -memory-limit MIB -memo MIB
                                 memory against time (400, 120, 24)

MULE_ADDR is the address to serve on (127.0.0.1:8080), MULE_DSN a MariaDB
database in the form user:password@tcp(host:port)/name.
`

func run(args []string, in io.Reader, out, errOut io.Writer) error {
	if len(args) == 0 {
		return errUse{"no command; mule help lists them"}
	}
	switch name, rest := args[0], args[1:]; name {
	case "check":
		if len(rest) == 1 && rest[0] == "help" {
			rest = []string{"-help"}
		}
		return check(rest, in, out)
	case "calc":
		return calculate(rest, out)
	case "serve":
		return serve(rest, out, errOut)
	case "demo":
		return runDemo(rest, out, errOut)
	case "migrate":
		return migrate(rest, out)
	case "backup":
		return backup(rest, out)
	case "restore":
		return restore(rest, in, out)
	case "export":
		return export(rest, out)
	case "help", "-help", "--help", "-h":
		_, err := io.WriteString(out, help)
		return err
	default:
		return errUse{fmt.Sprintf("no command %q; mule help lists them", name)}
	}
}
