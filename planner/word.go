package planner

import (
	"cuestart/store"
)

// What people say from their phones, as the store keeps it.
type (
	// Word is what somebody says from their phone.
	Word = store.Word
	// Seen is who has opened which publication.
	Seen = store.Seen
)

// Kinds of a word.
const (
	Late   = store.WordLate
	Easier = store.WordEasier
	Sore   = store.WordSore
	Pain   = "pain" // for medical staff alone: it becomes a [keep.Hurt]
	Grid   = store.WordGrid

	Missing = store.WordMissing
	Choice  = store.WordChoice
	Effort  = store.WordEffort
)
