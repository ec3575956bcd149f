package share

import (
	"archive/zip"
	"bytes"
	"io"
	"mime/multipart"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
)

type held struct{ *bytes.Reader }

func (held) Close() error { return nil }

// What coaches keep their lists in gives the same lines; what has none says what to do.
func TestAListIsReadFromAFile(t *testing.T) {
	read := func(name string, file []byte) ([]string, error) {
		return Lines(name, int64(len(file)), func() (multipart.File, error) { return held{bytes.NewReader(file)}, nil })
	}
	book := excelize.NewFile()
	for cell, is := range map[string]string{"A1": "Squats", "B1": "10", "A3": "Jog", "B3": "2 laps", "C3": "easy"} {
		require.NoError(t, book.SetCellStr("Sheet1", cell, is))
	}
	sheet, err := book.WriteToBuffer()
	require.NoError(t, err)
	var letter bytes.Buffer
	pack := zip.NewWriter(&letter)
	part, err := pack.Create("word/document.xml")
	require.NoError(t, err)
	_, err = io.WriteString(part,
		`<w:document xmlns:w="w"><w:body><w:p><w:r><w:t>Squats</w:t></w:r><w:r><w:tab/><w:t xml:space="preserve">10</w:t></w:r></w:p><w:p/><w:p><w:r><w:t>Jog 2 laps</w:t><w:br/><w:t>easy</w:t></w:r></w:p></w:body></w:document>`)
	require.NoError(t, err)
	require.NoError(t, pack.Close())
	for name, want := range map[string]struct {
		file  []byte
		lines []string
	}{
		"list.xlsx": {sheet.Bytes(), []string{"Squats\t10", "", "Jog\t2 laps\teasy"}},
		"list.docx": {letter.Bytes(), []string{"Squats\t10", "", "Jog 2 laps", "easy"}},
		"list.txt":  {[]byte("\ufeffSquats 10\r\n\r\nJog – 2 laps\n\n"), []string{"Squats 10", "", "Jog – 2 laps"}},
		"list.csv":  {[]byte("rotaci\xf3n,10"), []string{"rotación,10"}},
	} {
		lines, err := read(name, want.file)
		require.NoError(t, err, name)
		assert.Equal(t, want.lines, lines, name)
	}
	for name, file := range map[string][]byte{"a.xlsx": []byte("no zip"), "a.docx": sheet.Bytes(),
		"a.jpg": {0xff, 0xd8, 0, 1}} {
		_, err := read(name, file)
		assert.ErrorContains(t, err, name+" could not be read: save it as text or CSV", name)
	}
	_, err = read("a.txt", nil)
	assert.EqualError(t, err, "a.txt has no lines")
	_, err = read("a.txt", make([]byte, mostOfFile+1))
	assert.ErrorContains(t, err, "larger than 4 MB")
}

// How much is read in a table as it is said.
func TestADoseOfATableIsReadAsItIsSaid(t *testing.T) {
	drills, wrong,
		err := ReadDrills([]byte("name,say,dose\nHarbour wobble,Low,2 x 8 each side\nPost touch,Quick,12\nWall " +
		"hold,Tall,three holds of 20 secs\n"))
	require.NoError(t, err)
	require.Empty(t, wrong)
	require.Len(t, drills, 3)
	assert.Equal(t, "2 × 8 a side", drills[0].Is.Words(drills[0].Is.Range.Target))
	assert.Equal(t, 12, drills[1].Is.Range.Target)
	assert.Equal(t, "3 holds of 20 s", drills[2].Is.Words(drills[2].Is.Range.Target))
	_, wrong, err = ReadDrills([]byte("name,say,dose\nHarbour wobble,Low,plenty of it\n"))
	require.NoError(t, err)
	assert.ErrorContains(t, wrong[0], "no amount")
}
