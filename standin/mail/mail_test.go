package mail_test

import (
	"bufio"
	"context"
	"fmt"
	"net"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"cuestart/standin/mail"
)

// postOffice takes one letter as a mail server does, and hands it over.
func postOffice(t *testing.T) (address string, letters <-chan string) {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { listener.Close() })
	taken := make(chan string, 1)
	go func() {
		conn, err := listener.Accept()
		if err != nil {
			return
		}
		defer conn.Close()
		fmt.Fprint(conn, "220 here\r\n")
		letter, inside := "", false
		for lines := bufio.NewScanner(conn); lines.Scan(); {
			line := lines.Text()
			switch {
			case inside && line == ".":
				inside = false
				taken <- letter
				fmt.Fprint(conn, "250 taken\r\n")
			case inside:
				letter += line + "\n"
			case line == "DATA":
				inside = true
				fmt.Fprint(conn, "354 go on\r\n")
			case line == "QUIT":
				fmt.Fprint(conn, "221 bye\r\n")
				return
			default:
				letter += line + "\n"
				fmt.Fprint(conn, "250 fine\r\n")
			}
		}
	}()
	return listener.Addr().String(), taken
}

func TestALetterReachesTheMailServer(t *testing.T) {
	address, letters := postOffice(t)
	server, err := mail.NewSMTP(address, "plans@brackwater.example")
	require.NoError(t, err)
	require.NoError(t, server.Send(context.Background(), "odd@brackwater.example", "Your place at Brackwater – come in",
		"Line one\nhttp://here/join/abc"))
	select {
	case letter := <-letters:
		assert.Contains(t, letter, "RCPT TO:<odd@brackwater.example>")
		assert.Contains(t, letter, "<plans@brackwater.example>")
		assert.Contains(t, letter, "http://here/join/abc")
	case <-time.After(10 * time.Second):
		require.Fail(t, "it did not come")
	}
	assert.Error(t, server.Send(context.Background(), "odd@brackwater.example\r\nBcc: all@x.example", "x", "x"),
		"no second header")
}

func TestAMailServerThatIsNone(t *testing.T) {
	for _, bad := range []string{"", "mail", "mail:", "mail:25/x", "mail:many"} {
		_, err := mail.NewSMTP(bad, "plans@brackwater.example")
		assert.ErrorContains(t, err, "CUESTART_SMTP", bad)
		assert.False(t, strings.Contains(err.Error(), "\n"))
	}
	_, err := mail.NewSMTP("mail:25", "nobody")
	assert.ErrorContains(t, err, "CUESTART_MAIL_FROM")
}
