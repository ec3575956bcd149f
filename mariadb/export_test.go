package mariadb

import "time"

// GiveUpIn sets after how long a server is given up, until the function that it
// returns is called.
func GiveUpIn(d time.Duration) (back func()) {
	was := givenUpIn
	givenUpIn = d
	return func() { givenUpIn = was }
}
