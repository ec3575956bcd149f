// Package mail sends letters. Where no mail server is set they wait in the database's
// outbox, which is the stand-in: a demo shows them on a page.
package mail

import (
	"context"
	"fmt"
	"net/url"
	"strconv"
	"time"

	gomail "github.com/wneessen/go-mail"
)

// Sender sends letters.
type Sender interface {
	// Send sends one, in plain text.
	Send(ctx context.Context, to, subject, body string) error
}

// SMTP sends letters by a mail server, with TLS where it has that.
type SMTP struct {
	client *gomail.Client
	from   string
}

// sendWithin is how long a mail server may take for a letter.
const sendWithin = 30 * time.Second

// NewSMTP is a mail server as it is set: "host:port" or "user:password@host:port"; from
// is the address that letters come from. It fails where either is not of its form.
func NewSMTP(server, from string) (*SMTP, error) {
	at, err := url.Parse("smtp://" + server)
	if err != nil || at.Hostname() == "" || at.Port() == "" || at.Path != "" {
		return nil, fmt.Errorf("CUESTART_SMTP is not of the form host:port or user:password@host:port")
	}
	port, err := strconv.Atoi(at.Port())
	if err != nil {
		return nil, fmt.Errorf("CUESTART_SMTP has no port that can be: %w", err)
	}
	if err := gomail.NewMsg().From(from); err != nil {
		return nil, fmt.Errorf("CUESTART_MAIL_FROM is no address: %w", err)
	}
	options := []gomail.Option{gomail.WithPort(port), gomail.WithTimeout(sendWithin),
		gomail.WithTLSPolicy(gomail.TLSOpportunistic)}
	if password, has := at.User.Password(); has {
		options = append(options, gomail.WithSMTPAuth(gomail.SMTPAuthAutoDiscover),
			gomail.WithUsername(at.User.Username()), gomail.WithPassword(password))
	}
	client, err := gomail.NewClient(at.Hostname(), options...)
	if err != nil {
		return nil, fmt.Errorf("CUESTART_SMTP: %w", err)
	}
	return &SMTP{client, from}, nil
}

// Send sends a letter.
func (s *SMTP) Send(ctx context.Context, to, subject, body string) error {
	letter := gomail.NewMsg()
	if err := letter.FromFormat("Cue Start", s.from); err != nil {
		return err
	}
	if err := letter.To(to); err != nil {
		return err
	}
	letter.Subject(subject)
	letter.SetBodyString(gomail.TypeTextPlain, body)
	return s.client.DialAndSendWithContext(ctx, letter)
}
