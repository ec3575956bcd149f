// Package mail sends letters. Where no mail server is set they wait in the database's
// outbox, which is the stand-in: a demo shows them on a page.
package mail

import (
	"context"
	"errors"
	"fmt"
	"mime"
	"net"
	"net/smtp"
	"strings"
	"time"
)

// Sender sends letters.
type Sender interface {
	// Send sends one, in plain text.
	Send(ctx context.Context, to, subject, body string) error
}

// SMTP sends letters by a mail server, with TLS where it has that.
type SMTP struct {
	Server string // host:port
	From   string // the address that letters come from
}

// Send sends a letter.
func (s SMTP) Send(_ context.Context, to, subject, body string) error {
	if strings.ContainsAny(to+s.From, "\r\n") {
		return errors.New("an address holds a line break")
	}
	if _, _, err := net.SplitHostPort(s.Server); err != nil {
		return fmt.Errorf("CUESTART_SMTP is not of the form host:port: %w", err)
	}
	letter := fmt.Sprintf("From: Cue Start <%s>\r\nTo: <%s>\r\nSubject: %s\r\nDate: %s\r\nMIME-Version: 1.0\r\nContent-Type: text/plain; charset=utf-8\r\n\r\n%s",
		s.From, to, mime.QEncoding.Encode("utf-8", subject), time.Now().Format(time.RFC1123Z), strings.ReplaceAll(body, "\n", "\r\n"))
	return smtp.SendMail(s.Server, nil, s.From, []string{to}, []byte(letter))
}
