// Package speech is how the core's sentences come in other languages: whoever shows
// one hands a [Say] in, and the English sentence is the key to the others.
package speech

import "fmt"

// Say writes a sentence. Its format is the English one, with the verbs of fmt.Sprintf;
// another language may put the arguments in another order.
type Say func(format string, args ...any) string

// English says a sentence as it stands.
func English(format string, args ...any) string { return fmt.Sprintf(format, args...) }
