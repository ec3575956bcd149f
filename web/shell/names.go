package shell

// ExampleNames are names as they are pasted, with positions of a sport.
func ExampleNames(positions []string) string {
	at := func(n int) string { return positions[n%len(positions)] }
	return "1 Ana Birk - " + at(0) + "\nCleo Daunt, " + at(1) + "\nEve Fenn (" + at(2) + ") #12"
}
