package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"runtime/debug"
	"strings"
	"syscall"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/caarlos0/env/v11"

	"cuestart/demo"
	"cuestart/live"
	"cuestart/mariadb"
	"cuestart/planner/office"
	"cuestart/standin/gate"
	"cuestart/standin/mail"
	"cuestart/standin/weather"
	"cuestart/store"
	"cuestart/web"
	"cuestart/web/shell"
)

// settings come from the environment.
type settings struct {
	Addr string `env:"CUESTART_ADDR" envDefault:"127.0.0.1:8080"`
	Data string `env:"CUESTART_DATA" envDefault:"var"`
	DSN  string `env:"CUESTART_DSN"`
	URL  string `env:"CUESTART_URL"`

	Weather weather.Mood `env:"CUESTART_WEATHER"`
	Gate    gate.Mood    `env:"CUESTART_GATE"`
	Proxies []string     `env:"CUESTART_PROXIES"`
	Memory  int64        `env:"CUESTART_MEMORY" envDefault:"1024"`
	SMTP    string       `env:"CUESTART_SMTP"`
	From    string       `env:"CUESTART_MAIL_FROM" envDefault:"cuestart@localhost"`
}

// database opens the store, on a private server unless a DSN is set, and brings it up to date.
// Call the returned function to end both.
func database(ctx context.Context, set settings) (s *store.Store, gone <-chan struct{}, close func(), err error) {
	dsn, end := set.DSN, func() {}
	if dsn == "" {
		server, err := private(ctx, filepath.Join(set.Data, "mariadb"))
		if err != nil {
			return nil, nil, nil, err
		}
		dsn, gone = server.DSN("cuestart"), server.Gone()
		end = func() {
			if err := server.Stop(); err != nil {
				slog.Error("the database did not end cleanly", "error", err)
			}
		}
	}
	s, err = store.Open(ctx, dsn)
	if err == nil {
		err = s.Migrate(ctx)
	}
	if err == nil && set.DSN == "" {
		err = mariadb.CopyServed(filepath.Join(set.Data, "mariadb"))
	}
	if err != nil {
		if s != nil {
			s.Close()
		}
		end()
		if store.IsFull(err) {
			err = mariadb.ErrFull
		}
		return nil, nil, nil, err
	}
	return s, gone, func() { s.Close(); end() }, nil
}

// private starts the private server. Where its schema is about to be changed, a copy of its data
// is kept first, DATA/mariadb/copies/before-VERSION.
func private(ctx context.Context, dir string) (*mariadb.Server, error) {
	server, err := mariadb.Start(ctx, dir)
	if err != nil {
		return nil, err
	}
	version, pending, err := pendingOn(ctx, server)
	if err != nil || version == 0 || !pending {
		if err != nil {
			err = errors.Join(err, server.Stop())
		}
		return server, err
	}
	slog.Info("the schema is about to be brought up to date: a copy of the data is kept", "version", version)
	if err := server.Stop(); err != nil {
		return nil, err
	}
	if err := mariadb.KeepCopy(dir, fmt.Sprint("before-", version)); err != nil {
		return nil, err
	}
	return mariadb.Start(ctx, dir)
}

func pendingOn(ctx context.Context, server *mariadb.Server) (version int64, pending bool, err error) {
	s, err := store.Open(ctx, server.DSN("cuestart"))
	if err != nil {
		return 0, false, err
	}
	defer s.Close()
	return s.Pending(ctx)
}

func migrate(ctx context.Context) error {
	set, err := env.ParseAs[settings]()
	if err != nil {
		return err
	}
	_, _, end, err := database(ctx, set)
	if err != nil {
		return err
	}
	end()
	fmt.Println("The database is up to date.")
	return nil
}

// garbagePercent lets garbage grow to four times what is in use: what is in use is
// little, and collecting it while a page is made costs the slowest pages a third.
const garbagePercent = 400

// within keeps the program within its memory.
func within(set settings) {
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(garbagePercent)
	}
	if os.Getenv("GOMEMLIMIT") == "" && set.Memory > 0 {
		debug.SetMemoryLimit(set.Memory << 20)
	}
}

// serve serves the site until ctx ends; with withDemo it fills in the demo club where there is
// none.
func serve(ctx context.Context, withDemo bool) error {
	set, err := env.ParseAs[settings]()
	if err != nil {
		return err
	}
	listener, err := listen(set)
	if err != nil {
		return err
	}
	defer listener.Close()
	s, gone, end, err := database(ctx, set)
	if err != nil {
		return err
	}
	defer end()
	if withDemo {
		if err := demo.Fill(ctx, s, time.Now(), argon2id.DefaultParams); err != nil {
			return fmt.Errorf("the demo club cannot be filled in: %w", err)
		}
	}
	within(set)
	plans := office.New(s)
	plans.Diary.Weather = weather.Service{Mood: set.Weather}
	plans.Learn.Port = gate.Port{Mood: set.Gate}
	go plans.Pitchside.KeepUp(ctx)
	go tidy(ctx, s)
	signIns, endCleanup := s.SignIns()
	defer endCleanup()
	if err := post(ctx, s, set); err != nil {
		return err
	}
	server := serverOf(web.Handler(shell.Config{Office: plans, Live: live.Over(ctx, plans.Base), SignIns: signIns,
		URL: set.URL, Secure: strings.HasPrefix(set.URL, "https://"), Proxies: set.Proxies,
		Outbox: withDemo && set.SMTP == "", Log: slog.Default()}))
	served := make(chan error, 1)
	go func() { served <- server.Serve(listener) }()
	announce(ctx, s, listener.Addr().String())
	select {
	case err := <-served:
		return err
	case <-gone:
		return errors.New("the database has ended and does not come back: see its log, mariadb/error.log in " +
			"the data folder")
	case <-ctx.Done():
	}
	finish, cancel := context.WithTimeout(context.WithoutCancel(ctx), 10*time.Second)
	defer cancel()
	return server.Shutdown(finish)
}

// serverOf serves a site to browsers that may be slow, and to nobody for ever.
func serverOf(site http.Handler) *http.Server {
	return &http.Server{Handler: site, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: 30 * time.Second,
		WriteTimeout: time.Minute, IdleTimeout: 2 * time.Minute, MaxHeaderBytes: 64 << 10}
}

// post has letters sent from now on, where a mail server is set.
func post(ctx context.Context, s *store.Store, set settings) error {
	if set.SMTP == "" {
		return nil
	}
	server, err := mail.NewSMTP(set.SMTP, set.From)
	if err == nil {
		go deliver(ctx, s, server)
	}
	return err
}

// deliver sends the letters that wait, every few seconds, until ctx ends.
func deliver(ctx context.Context, s *store.Store, by mail.Sender) {
	for {
		err := s.Accounts.Deliver(ctx, func(ctx context.Context, l store.Letter) error {
			return by.Send(ctx, l.To, l.Subject, l.Body)
		})
		if err != nil && ctx.Err() == nil {
			slog.Error("a letter cannot be sent", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(5 * time.Second):
		}
	}
}

// letters prints those that wait to be sent, where no mail server is set.
func letters(ctx context.Context) error {
	set, err := env.ParseAs[settings]()
	if err != nil {
		return err
	}
	if dsn, running := mariadb.Running(filepath.Join(set.Data, "mariadb"), "cuestart"); running && set.DSN == "" {
		set.DSN = dsn
	}
	s, _, end, err := database(ctx, set)
	if err != nil {
		return err
	}
	defer end()
	return s.Accounts.Deliver(ctx, func(_ context.Context, l store.Letter) error {
		_, err := fmt.Printf("To: %s\nSubject: %s\n\n%s\n\n", l.To, l.Subject, l.Body)
		return err
	})
}

// tidy keeps the database tidy, now and every hour, until ctx ends.
func tidy(ctx context.Context, s *store.Store) {
	for {
		if err := s.Tidy(ctx); err != nil && ctx.Err() == nil {
			slog.Error("the database cannot be tidied", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(time.Hour):
		}
	}
}

// listen takes the port first, so that a second start ends at once.
func listen(set settings) (net.Listener, error) {
	listener, err := net.Listen("tcp", set.Addr)
	switch {
	case err == nil:
		return listener, nil
	case errors.Is(err, syscall.EADDRINUSE) && ours(set.Addr):
		return nil, fmt.Errorf("Cue Start is running already at http://%s", set.Addr)
	case errors.Is(err, syscall.EADDRINUSE):
		return nil,
			fmt.Errorf("another program uses %s: end it, or set CUESTART_ADDR, such as CUESTART_ADDR=127.0.0.1:8081",
				set.Addr)
	case errors.Is(err, os.ErrPermission):
		return nil, fmt.Errorf("this user may not use %s: set CUESTART_ADDR to a port above 1023", set.Addr)
	}
	return nil, fmt.Errorf("CUESTART_ADDR %s cannot be used: %w", set.Addr, err)
}

// ours tells whether it is a Cue Start that answers at addr.
func ours(addr string) bool {
	client := http.Client{Timeout: time.Second}
	answer, err := client.Get("http://" + addr + "/healthz")
	if err != nil {
		return false
	}
	defer answer.Body.Close()
	return answer.Header.Get("X-Program") == "cuestart"
}

// announce prints the address, and the demo's sign-in where it is good, last.
func announce(ctx context.Context, s *store.Store, addr string) {
	fmt.Printf("Cue Start %s is ready at http://%s\n", version(), addr)
	if _, _, err := s.Accounts.AccountByEmail(ctx, demo.Email); err == nil {
		fmt.Printf("Sign in as %s with the password: %s\n(%s makes rulings, with the same password)\n", demo.Email,
			demo.Password, demo.MedicalEmail)
	}
}
