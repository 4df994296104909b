// Package mariadb runs a private MariaDB server on loopback: for the
// demonstration, and for tests. Its data lives in one directory, its socket in a
// short temporary one, its password beside the data, readable by the owner only.
package mariadb

import (
	"context"
	"crypto/rand"
	"database/sql"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"syscall"
	"time"

	"github.com/go-sql-driver/mysql"
)

// Server is a running server.
type Server struct {
	config  *mysql.Config
	process *os.Process
	ended   chan struct{}
	scratch string
	lock    *os.File // held while it runs: the data is one server's
}

// name of the account and of the first database.
const name = "mule"

// startLimit is how long a server may take to come up: recovery after a kill
// takes a second or two on a slow disk.
const startLimit = 60 * time.Second

// maxSocketPath is what a Unix socket address holds; MariaDB aborts beyond it.
const maxSocketPath = 107

// Start brings up a server on the data in dir, which it makes at the first
// start. An error carries the end of the server's log.
func Start(ctx context.Context, dir string) (*Server, error) { return start(ctx, dir) }

// StartThrowaway is Start for data that nobody will miss: the server does not
// wait for the disk, so a power cut may lose it. It takes more options of the server.
func StartThrowaway(ctx context.Context, dir string, options ...string) (*Server, error) {
	quick := []string{"--innodb-flush-method=nosync", "--innodb-flush-log-at-trx-commit=0", "--innodb-doublewrite=0", "--innodb-log-file-size=16M"}
	return start(ctx, dir, append(quick, options...)...)
}

func start(ctx context.Context, dir string, more ...string) (*Server, error) {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	daemon, err := find("mariadbd")
	if err != nil {
		return nil, err
	}
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, err
	}
	lock, err := locked(filepath.Join(dir, "lock"))
	if err != nil {
		return nil, err
	}
	s, err := startIn(ctx, daemon, dir, lock, more)
	if err != nil {
		lock.Close() // a second time where it came up and went
	}
	return s, err
}

// locked holds a file that another program cannot hold at the same time; it lets go of it
// when it ends, however that comes.
func locked(path string) (*os.File, error) {
	file, err := os.OpenFile(path, os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, err
	}
	if err := syscall.Flock(int(file.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		file.Close()
		return nil, fmt.Errorf("another program runs the database in %s: end that first", filepath.Dir(path))
	}
	return file, nil
}

func startIn(ctx context.Context, daemon, dir string, lock *os.File, more []string) (*Server, error) {
	data := filepath.Join(dir, "data")
	if err := install(ctx, data); err != nil {
		return nil, err
	}
	password, err := passwordIn(filepath.Join(dir, "password"))
	if err != nil {
		return nil, err
	}
	scratch, err := os.MkdirTemp(shortTemp(), "mule-")
	if err != nil {
		return nil, err
	}
	s := &Server{ended: make(chan struct{}), scratch: scratch, lock: lock}
	if err := s.launch(ctx, daemon, data, password, filepath.Join(dir, "server.log"), more); err != nil {
		os.RemoveAll(scratch)
		return nil, err
	}
	return s, nil
}

// DSN of a database on the server, made if it is not there.
func (s *Server) DSN(ctx context.Context, database string) (string, error) {
	if err := s.execute(ctx, "CREATE DATABASE IF NOT EXISTS `"+strings.ReplaceAll(database, "`", "")+"`"); err != nil {
		return "", err
	}
	config := s.config.Clone()
	config.DBName = database
	return config.FormatDSN(), nil
}

// Ended is closed when the server is gone, by Stop or by itself.
func (s *Server) Ended() <-chan struct{} { return s.ended }

// Stop ends the server cleanly and waits for it.
func (s *Server) Stop() {
	_ = s.process.Signal(syscall.SIGTERM) // already gone is as good
	<-s.ended
	os.RemoveAll(s.scratch)
}

func (s *Server) launch(ctx context.Context, daemon, data, password, logPath string, more []string) error {
	port, err := portIn(filepath.Join(filepath.Dir(data), "port"))
	if err != nil {
		return err
	}
	accounts := filepath.Join(s.scratch, "accounts.sql")
	if err := os.WriteFile(accounts, []byte(accountsSQL(password)), 0o600); err != nil {
		return err
	}
	log, err := os.OpenFile(logPath, os.O_CREATE|os.O_WRONLY|os.O_TRUNC, 0o600)
	if err != nil {
		return err
	}
	defer log.Close()

	args := append(withUser("--no-defaults"),
		"--datadir="+data, "--bind-address=127.0.0.1", fmt.Sprintf("--port=%d", port),
		"--socket="+filepath.Join(s.scratch, "s"), "--pid-file="+filepath.Join(s.scratch, "pid"),
		"--tmpdir="+s.scratch, // a server clears its own away at start, and another's with them
		"--init-file="+accounts, "--skip-name-resolve", "--performance-schema=0",
		"--character-set-server=utf8mb4", "--collation-server=utf8mb4_unicode_ci",
		"--sql-mode=STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION,ERROR_FOR_DIVISION_BY_ZERO")
	command := exec.Command(daemon, append(args, more...)...)
	command.Stdout, command.Stderr = log, log
	// Its own group, so that a Ctrl-C reaches this program first; and it ends
	// with this program, even when that is killed.
	command.SysProcAttr = &syscall.SysProcAttr{Setpgid: true, Pdeathsig: syscall.SIGTERM}
	started := make(chan error)
	go func() {
		runtime.LockOSThread() // the death signal follows the thread that started it
		err := command.Start()
		started <- err
		if err == nil {
			_ = command.Wait() // how it ended stands in its log
			s.lock.Close()
			close(s.ended)
		}
	}()
	if err := <-started; err != nil {
		return fmt.Errorf("the database server cannot be started: %w", err)
	}
	s.process = command.Process

	s.config = mysql.NewConfig()
	s.config.User, s.config.Passwd = name, password
	s.config.Net, s.config.Addr = "tcp", fmt.Sprintf("127.0.0.1:%d", port)
	s.config.Logger = &mysql.NopLogger{} // refused connections are what waiting looks like
	if err := s.wait(ctx); err != nil {
		s.Stop()
		return fmt.Errorf("the database did not come up: %w; the end of its log:\n%s", err, tail(logPath))
	}
	return nil
}

// wait until the server answers, it ends, or time is up.
func (s *Server) wait(ctx context.Context) error {
	ctx, cancel := context.WithTimeout(ctx, startLimit)
	defer cancel()
	for {
		err := s.execute(ctx, "SELECT 1")
		if err == nil {
			return nil
		}
		select {
		case <-s.ended:
			return errors.New("it ended at once")
		case <-ctx.Done():
			return fmt.Errorf("no answer in %s: %w", startLimit, err)
		case <-time.After(50 * time.Millisecond):
		}
	}
}

func (s *Server) execute(ctx context.Context, statement string) error {
	db, err := sql.Open("mysql", s.config.FormatDSN())
	if err != nil {
		return err
	}
	defer db.Close()
	_, err = db.ExecContext(ctx, statement)
	return err
}

// install makes the data directory, whole or not at all.
func install(ctx context.Context, data string) error {
	if _, err := os.Stat(filepath.Join(data, "mysql")); err == nil {
		return nil
	}
	installer, err := find("mariadb-install-db")
	if err != nil {
		return err
	}
	// What an earlier start left, that was killed in it; its installer may still be at work
	// there, so this one has a place of its own.
	left, err := filepath.Glob(data + ".new-*")
	if err != nil {
		return err
	}
	for _, path := range left {
		_ = os.RemoveAll(path) // it harms nobody where it is
	}
	fresh, err := os.MkdirTemp(filepath.Dir(data), filepath.Base(data)+".new-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(fresh)
	scratch := filepath.Join(fresh, "tmp")
	if err := os.Mkdir(scratch, 0o700); err != nil {
		return err
	}
	made := filepath.Join(fresh, "data")
	command := exec.CommandContext(ctx, installer, append(withUser("--no-defaults"),
		"--datadir="+made, "--skip-test-db", "--auth-root-authentication-method=socket")...)
	command.Env = append(os.Environ(), "TMPDIR="+scratch) // a server clears its own away at start, and another's with them
	if output, err := command.CombinedOutput(); err != nil {
		return fmt.Errorf("the database could not be made: %w\n%s", err, output)
	}
	return os.Rename(made, data)
}

// accountsSQL runs at each start, so a lost password file is no disaster.
func accountsSQL(password string) string {
	account := "'" + name + "'@'127.0.0.1'"
	return "DROP USER IF EXISTS ''@'localhost';\n" +
		"CREATE USER IF NOT EXISTS " + account + ";\n" +
		"ALTER USER " + account + " IDENTIFIED BY '" + password + "';\n" +
		"GRANT ALL ON *.* TO " + account + ";\n"
}

// withUser adds --user, without which MariaDB refuses to run as root.
func withUser(args ...string) []string {
	if u, err := user.Current(); err == nil && os.Geteuid() == 0 {
		args = append(args, "--user="+u.Username)
	}
	return args
}

func passwordIn(path string) (string, error) {
	if read, err := os.ReadFile(path); err == nil && len(read) > 0 {
		return string(read), nil
	}
	password := rand.Text()
	return password, os.WriteFile(path, []byte(password), 0o600)
}

// find a program on the path or where Debian keeps servers.
func find(program string) (string, error) {
	if path, err := exec.LookPath(program); err == nil {
		return path, nil
	}
	for _, dir := range []string{"/usr/sbin", "/usr/bin", "/usr/local/sbin"} {
		if path := filepath.Join(dir, program); executable(path) {
			return path, nil
		}
	}
	return "", fmt.Errorf("%s is not installed: Debian's packages mariadb-server-core and mariadb-client have it", program)
}

func executable(path string) bool {
	info, err := os.Stat(path)
	return err == nil && info.Mode()&0o111 != 0
}

// shortTemp is a place for sockets whose path is short enough.
func shortTemp() string {
	if dir := os.TempDir(); len(dir)+len("/mule-0123456789/pid") < maxSocketPath {
		return dir
	}
	return "/tmp"
}

// portIn is the port of the last start if that is still free, so that programs
// find a server that comes back; otherwise another, which is noted.
func portIn(path string) (int, error) {
	last, _ := os.ReadFile(path) // none at the first start
	for _, wish := range []string{string(last), "0"} {
		listener, err := net.Listen("tcp", "127.0.0.1:"+wish)
		if err != nil {
			continue
		}
		port := listener.Addr().(*net.TCPAddr).Port
		listener.Close()
		return port, os.WriteFile(path, []byte(strconv.Itoa(port)), 0o600)
	}
	return 0, errors.New("no free port on 127.0.0.1")
}

// tail is the last lines of a log.
func tail(path string) string {
	data, err := os.ReadFile(path)
	if err != nil {
		return err.Error()
	}
	lines := strings.Split(strings.TrimSpace(string(data)), "\n")
	return strings.Join(lines[max(0, len(lines)-12):], "\n")
}
