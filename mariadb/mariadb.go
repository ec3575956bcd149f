// Package mariadb runs a private MariaDB server: its own data folder, reached
// through a socket in it and no network port, never the system's server. The
// server is restarted if it dies, and stopped with its owner.
package mariadb

import (
	"bufio"
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"
)

// Packages are the Debian packages that hold what this package runs.
const Packages = "mariadb-server-core mariadb-client-core"

// Oldest is the oldest version of MariaDB that will do.
const Oldest = "10.6"

// Errors of Start. Each says what its reader can do.
var (
	ErrInUse = errors.New("another Cue Start is running with this data folder: stop it, or set CUESTART_DATA " +
		"to another folder")
	ErrMissing = errors.New("MariaDB is not installed: run  sudo apt-get install -y --no-install-recommends " +
		Packages)
	ErrFull = errors.New("the disk is full: free some space and start again, nothing that was saved is lost")
)

// minFree is the disk space below which the server is not started.
const minFree = 64 << 20

// Server is a running private server.
type Server struct {
	dir, socket, program, account string
	settings                      []string
	lock                          *os.File

	mu       sync.Mutex
	process  *os.Process
	stopping bool
	done     chan struct{} // closed when the server ended for good
}

// Gone is closed when the server has ended for good: stopped, or given up after
// minutes in which it never stayed up.
func (s *Server) Gone() <-chan struct{} { return s.done }

// Running is the data source name of a database on the server that another process
// runs on a data folder; false where none does.
func Running(dir, database string) (dsn string, running bool) {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return "", false
	}
	lock, err := os.Open(filepath.Join(dir, "lock"))
	if err != nil {
		return "", false
	}
	defer lock.Close()
	if syscall.Flock(int(lock.Fd()), syscall.LOCK_EX|syscall.LOCK_NB) == nil {
		return "", false
	}
	who, err := user.Current()
	if err != nil {
		return "", false
	}
	return fmt.Sprintf("%s@unix(%s)/%s", who.Username, socketPath(dir), database), true
}

// Start starts the server whose data are in dir, and makes dir if it is not there. It returns
// when the server answers, or with one of the errors above, or with one that names what went
// wrong. Settings are further ones of the server, as it takes them on its command line.
func Start(ctx context.Context, dir string, settings ...string) (*Server, error) {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("the data folder cannot be made: %w", asFull(err))
	}
	who, err := user.Current()
	if err != nil {
		return nil, fmt.Errorf("the user of this process is not known: %w", err)
	}
	s := &Server{dir: dir, socket: socketPath(dir), account: who.Username, settings: settings,
		done: make(chan struct{})}
	if s.program, err = find("mariadbd"); err != nil {
		return nil, err
	}
	if err := checkVersion(ctx, s.program); err != nil {
		return nil, err
	}
	if err := s.takeLock(); err != nil {
		return nil, err
	}
	if err := s.prepare(ctx); err != nil {
		s.lock.Close()
		return nil, err
	}
	if err := s.launch(ctx); err != nil {
		s.lock.Close()
		return nil, err
	}
	return s, nil
}

// DSN is the data source name of a database on the server, for go-sql-driver.
func (s *Server) DSN(database string) string {
	return fmt.Sprintf("%s@unix(%s)/%s", s.account, s.socket, database)
}

// PID is the process id of the server.
func (s *Server) PID() int {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.process.Pid
}

// Stop ends the server and waits until it has written everything.
func (s *Server) Stop() error {
	s.mu.Lock()
	s.stopping = true
	process := s.process
	s.mu.Unlock()
	process.Signal(syscall.SIGTERM)
	select {
	case <-s.done:
	case <-time.After(30 * time.Second):
		process.Kill()
		<-s.done
		return errors.New("the database did not stop within 30 s and was killed; it recovers at its next start")
	}
	return s.lock.Close()
}

// socketPath is short whatever the folder's name: a socket's path may have about a hundred bytes.
func socketPath(dir string) string {
	path := filepath.Join(dir, "sock")
	if len(path) < 100 {
		return path
	}
	return filepath.Join(os.TempDir(), fmt.Sprintf("cuestart-%x.sock", sha256.Sum256([]byte(dir)))[:40])
}

func find(program string) (string, error) {
	if path, err := exec.LookPath(program); err == nil {
		return path, nil
	}
	path := filepath.Join("/usr/sbin", program)
	if _, err := os.Stat(path); err != nil {
		return "", ErrMissing
	}
	return path, nil
}

func checkVersion(ctx context.Context, program string) error {
	out, err := exec.CommandContext(ctx, program, "--no-defaults", "--version").Output()
	if err != nil {
		return fmt.Errorf("%s does not start: %w", program, err)
	}
	return CheckVersion(string(out))
}

// CheckVersion reads a version as MariaDB writes it and says, in one sentence,
// when it will not do.
func CheckVersion(text string) error {
	text = strings.TrimSpace(text)
	if !strings.Contains(text, "MariaDB") {
		return fmt.Errorf("this is not MariaDB but %q: version %s or newer of MariaDB is needed", text, Oldest)
	}
	if i := strings.Index(text, "Ver "); i >= 0 {
		text = text[i+4:]
	}
	var major, minor, needMajor, needMinor int
	fmt.Sscanf(Oldest, "%d.%d", &needMajor, &needMinor)
	if n, _ := fmt.Sscanf(text, "%d.%d", &major, &minor); n < 2 || major < needMajor ||
		major == needMajor && minor < needMinor {
		return fmt.Errorf("MariaDB %s is too old: version %s or newer is needed", strings.Fields(text)[0], Oldest)
	}
	return nil
}

// takeLock makes sure of being the only owner of the folder, however the last one ended.
func (s *Server) takeLock() error {
	lock, err := os.OpenFile(filepath.Join(s.dir, "lock"), os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return fmt.Errorf("the data folder cannot be written: %w", asFull(err))
	}
	if err := syscall.Flock(int(lock.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		lock.Close()
		return ErrInUse
	}
	s.lock = lock
	return nil
}

// prepare ends a server that an owner killed outright left behind, and fills an empty data
// folder.
func (s *Server) prepare(ctx context.Context) error {
	if err := s.endOrphan(); err != nil {
		return err
	}
	var disk syscall.Statfs_t
	if err := syscall.Statfs(s.dir, &disk); err == nil && disk.Bavail*uint64(disk.Bsize) < minFree {
		return ErrFull
	}
	data := filepath.Join(s.dir, "data")
	if _, err := os.Stat(filepath.Join(data, "mysql")); err == nil {
		return nil
	}
	install, err := find("mariadb-install-db")
	if err != nil {
		return err
	}
	// Installed beside and moved into place, so that a start that is cut short
	// leaves nothing half made.
	// Each start has a folder of its own for that: what a killed one left running may write
	// into the old one for a moment.
	old, _ := filepath.Glob(filepath.Join(s.dir, "fresh*"))
	for _, dir := range old {
		os.RemoveAll(dir)
	}
	if err := os.RemoveAll(data); err != nil {
		return err
	}
	fresh := filepath.Join(s.dir, fmt.Sprint("fresh-", time.Now().UnixNano()))
	temporary, err := s.temporary()
	if err != nil {
		return err
	}
	args := []string{"--no-defaults", "--datadir=" + fresh, "--tmpdir=" + temporary, "--skip-test-db",
		"--skip-name-resolve",
		"--auth-root-authentication-method=socket", "--auth-root-socket-user=" + s.account}
	if os.Geteuid() == 0 {
		args = append(args, "--user="+s.account)
	}
	out, err := exec.CommandContext(ctx, install, args...).CombinedOutput()
	if err != nil {
		return fmt.Errorf("the data folder cannot be filled: %w",
			asFull(fmt.Errorf("%w: %s", err, complaintIn(string(out)))))
	}
	return os.Rename(fresh, data)
}

// temporary is a folder for the server's passing files, of its own: several that start
// at once must not meet in the system's.
func (s *Server) temporary() (string, error) {
	dir := filepath.Join(s.dir, "tmp")
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return "", fmt.Errorf("the data folder cannot be written: %w", asFull(err))
	}
	return dir, nil
}

// endOrphan stops the server that still runs on the folder, if one does. The lock is ours, so
// nobody uses it.
func (s *Server) endOrphan() error {
	text, err := os.ReadFile(s.pidFile())
	if err != nil {
		return nil
	}
	pid, err := strconv.Atoi(strings.TrimSpace(string(text)))
	if err != nil || !s.isOurs(pid) {
		return nil
	}
	slog.Info("ending the database that a killed Cue Start left running", "pid", pid)
	syscall.Kill(pid, syscall.SIGTERM)
	for deadline := time.Now().Add(10 * time.Second); time.Now().Before(deadline); time.Sleep(50 * time.Millisecond) {
		if !s.isOurs(pid) {
			return nil
		}
	}
	syscall.Kill(pid, syscall.SIGKILL)
	time.Sleep(time.Second)
	return nil
}

// isOurs tells whether pid is a live server of this data folder.
func (s *Server) isOurs(pid int) bool {
	line, err := os.ReadFile(fmt.Sprintf("/proc/%d/cmdline", pid))
	return err == nil && strings.Contains(string(line), "--datadir="+filepath.Join(s.dir, "data")+"\x00")
}

func (s *Server) pidFile() string  { return filepath.Join(s.dir, "pid") }
func (s *Server) errorLog() string { return filepath.Join(s.dir, "error.log") }

// launch starts the process, waits until it answers, and watches it.
func (s *Server) launch(ctx context.Context) error {
	exited, err := s.spawn()
	if err != nil {
		return err
	}
	if err := s.await(ctx, exited); err != nil {
		return err
	}
	go s.watch(exited)
	return nil
}

func (s *Server) spawn() (exited chan struct{}, err error) {
	os.Remove(s.socket)
	os.Remove(s.errorLog())
	temporary, err := s.temporary()
	if err != nil {
		return nil, err
	}
	args := []string{"--no-defaults", "--datadir=" + filepath.Join(s.dir, "data"), "--tmpdir=" + temporary,
		"--socket=" + s.socket, "--pid-file=" + s.pidFile(),
		"--log-error=" + s.errorLog(), "--skip-networking", "--skip-name-resolve", "--character-set-server=utf8mb4",
		"--collation-server=utf8mb4_unicode_ci", "--default-time-zone=+00:00",
		"--sql-mode=STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION,ERROR_FOR_DIVISION_BY_ZERO",
		"--innodb-buffer-pool-size=128M", "--innodb-log-file-size=48M", "--max-connections=100",
		"--performance-schema=OFF"}
	args = append(args, s.settings...)
	if os.Geteuid() == 0 {
		args = append(args, "--user="+s.account)
	}
	cmd := exec.Command(s.program, args...)
	// A group of its own: the Ctrl-C that ends us must not reach the server
	// before our last writes do. Where we are killed outright, the system kills it too: told
	// to end while it starts, it may never do so; killed, it recovers what was committed.
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true, Pdeathsig: syscall.SIGKILL}
	exited = make(chan struct{})
	started := make(chan error)
	go func() {
		runtime.LockOSThread() // the signal comes when the thread ends that started it
		err := cmd.Start()
		started <- err
		if err == nil {
			cmd.Wait()
			close(exited)
		}
	}()
	if err := <-started; err != nil {
		return nil, fmt.Errorf("the database does not start: %w", err)
	}
	s.mu.Lock()
	s.process = cmd.Process
	s.mu.Unlock()
	return exited, nil
}

// await returns when the server says that it is ready.
func (s *Server) await(ctx context.Context, exited chan struct{}) error {
	deadline := time.After(90 * time.Second) // recovery after a crash takes its time
	for {
		select {
		case <-exited:
			return fmt.Errorf("the database does not start: %w", asFull(errors.New(s.complaint())))
		case <-ctx.Done():
			s.process.Signal(syscall.SIGTERM)
			<-exited
			return ctx.Err()
		case <-deadline:
			s.process.Kill()
			return errors.New("the database did not get ready within 90 s; see " + s.errorLog())
		case <-time.After(20 * time.Millisecond):
			if s.says("ready for connections") {
				return nil
			}
		}
	}
}

func (s *Server) says(words string) bool {
	text, err := os.ReadFile(s.errorLog())
	return err == nil && strings.Contains(string(text), words)
}

// complaint is the first error in the server's log.
func (s *Server) complaint() string {
	file, err := os.Open(s.errorLog())
	if err != nil {
		return "it ended without a word"
	}
	defer file.Close()
	for lines := bufio.NewScanner(file); lines.Scan(); {
		if _, message, ok := strings.Cut(lines.Text(), "[ERROR]"); ok {
			return strings.TrimSpace(message)
		}
	}
	return "it ended without naming an error; see " + s.errorLog()
}

// asFull turns an error that stems from a full disk into ErrFull.
func asFull(err error) error {
	text := err.Error()
	if errors.Is(err, syscall.ENOSPC) || strings.Contains(text, "No space left") ||
		strings.Contains(text, "Errcode: 28") || strings.Contains(text, "error: 28") {
		return ErrFull
	}
	return err
}

// complaintIn is what a program's output says went wrong: its first line of an error, or
// else its last line.
func complaintIn(text string) string {
	lines := strings.Split(strings.TrimSpace(text), "\n")
	for _, line := range lines {
		if strings.Contains(strings.ToLower(line), "error") || strings.Contains(line, "FATAL") {
			return strings.TrimSpace(line)
		}
	}
	return lines[len(lines)-1]
}
