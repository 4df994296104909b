package mariadb

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"strings"

	"github.com/go-sql-driver/mysql"
)

// Dump writes the database of a DSN as statements that [Load] reads, as it stands at one
// moment, while others go on writing. Its last line says how long the rest is and what its
// SHA-256 is, which [Check] reads.
func Dump(ctx context.Context, dsn string, w io.Writer) error {
	out := newSealed(w)
	err := client(ctx, dsn, "mariadb-dump", nil, out, "--single-transaction", "--quick", "--skip-lock-tables", "--no-tablespaces", "--hex-blob", "--default-character-set=utf8mb4")
	if err != nil {
		return err
	}
	return out.close()
}

// Load runs what Dump wrote in the database of a DSN. No row of it is in an error.
func Load(ctx context.Context, dsn string, r io.Reader) error {
	return client(ctx, dsn, "mariadb", r, io.Discard, "--default-character-set=utf8mb4", "--binary-mode")
}

// client runs one of the server's own programs on the database of a DSN. The password goes
// by a file that only this user reads, not by the list of processes.
func client(ctx context.Context, dsn, program string, in io.Reader, out io.Writer, args ...string) error {
	config, err := mysql.ParseDSN(dsn)
	if err != nil {
		return fmt.Errorf("database address: %w", err)
	}
	path, err := find(program)
	if err != nil {
		return err
	}
	dir, err := os.MkdirTemp("", "mule-client-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	options := "[client]\nuser=" + quoted(config.User) + "\npassword=" + quoted(config.Passwd) + "\n"
	if config.Net == "unix" {
		options += "socket=" + quoted(config.Addr) + "\n"
	} else {
		host, port, err := net.SplitHostPort(config.Addr)
		if err != nil {
			return fmt.Errorf("database address: %w", err)
		}
		options += "host=" + quoted(host) + "\nport=" + port + "\nprotocol=tcp\n"
	}
	file := filepath.Join(dir, "client.cnf")
	if err := os.WriteFile(file, []byte(options), 0o600); err != nil {
		return err
	}
	var said bytes.Buffer
	command := exec.CommandContext(ctx, path, append(append([]string{"--defaults-file=" + file}, args...), config.DBName)...)
	command.Stdin, command.Stdout, command.Stderr = in, out, &said
	if err := command.Run(); err != nil {
		if in != nil {
			return fmt.Errorf("%s: %w: %s", program, err, saidBy(said.String()))
		}
		return fmt.Errorf("%s: %w: %s", program, err, strings.TrimSpace(said.String()))
	}
	return nil
}

// quoted is a value of an options file.
func quoted(text string) string {
	return `"` + strings.NewReplacer(`\`, `\\`, `"`, `\"`, "\n", `\n`).Replace(text) + `"`
}
