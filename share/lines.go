package share

import (
	"archive/zip"
	"bufio"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"mime/multipart"
	"path"
	"strings"
	"unicode/utf8"

	"github.com/xuri/excelize/v2"
	"golang.org/x/text/encoding/charmap"
)

// mostOfFile is how many bytes of a file are read as lines, packed or not.
const mostOfFile = 4 << 20

// Lines are the lines of a list that somebody keeps in a file of another program: text, a table as CSV or
// xlsx (each row a line, its cells parted by tabs), or a letter as docx (each paragraph a line). size is
// in bytes. An error is a sentence for whoever dropped the file.
func Lines(name string, size int64, open func() (multipart.File, error)) (lines []string, err error) {
	if size > mostOfFile {
		return nil, fmt.Errorf("%s is larger than 4 MB: copy the lines that you need and paste them", name)
	}
	file, err := open()
	if err != nil {
		return nil, err
	}
	defer file.Close()
	switch strings.ToLower(path.Ext(name)) {
	case ".xlsx", ".xlsm":
		lines, err = tableLines(file)
	case ".docx":
		lines, err = letterLines(file, size)
	default:
		lines, err = textLines(file)
	}
	if err != nil {
		return nil, fmt.Errorf("%s could not be read: save it as text or CSV, or copy its lines and paste them", name)
	}
	for len(lines) > 0 && strings.TrimSpace(lines[len(lines)-1]) == "" {
		lines = lines[:len(lines)-1]
	}
	if len(lines) == 0 {
		return nil, fmt.Errorf("%s has no lines", name)
	}
	return lines, nil
}

var errNoText = errors.New("no text")

func textLines(file io.Reader) (lines []string, err error) {
	all, err := io.ReadAll(io.LimitReader(file, mostOfFile))
	if err != nil {
		return nil, err
	}
	text := string(all)
	if !utf8.ValidString(text) {
		if text, err = charmap.Windows1252.NewDecoder().String(text); err != nil {
			return nil, err
		}
	}
	if strings.ContainsFunc(text,
		func(r rune) bool { return r < ' ' && r != '\n' && r != '\r' && r != '\t' && r != '\f' && r != '\v' }) {
		return nil, errNoText
	}
	scan := bufio.NewScanner(strings.NewReader(strings.TrimPrefix(text, "\ufeff")))
	scan.Buffer(nil, mostOfFile)
	for scan.Scan() {
		lines = append(lines, strings.TrimRight(scan.Text(), " \r"))
	}
	return lines, scan.Err()
}

// tableLines are the rows of a workbook's first sheet that has any.
func tableLines(file io.Reader) (lines []string, err error) {
	book, err := excelize.OpenReader(file, excelize.Options{UnzipSizeLimit: 8 * mostOfFile,
		UnzipXMLSizeLimit: mostOfFile})
	if err != nil {
		return nil, err
	}
	defer book.Close()
	for _, sheet := range book.GetSheetList() {
		rows, err := book.GetRows(sheet)
		if err != nil {
			return nil, err
		}
		for _, row := range rows[:min(len(rows), MaxRows)] {
			lines = append(lines, strings.TrimSpace(strings.ReplaceAll(strings.Join(row, "\t"), "\n", " ")))
		}
		if len(lines) > 0 {
			break
		}
	}
	return lines, nil
}

// letterLines are the paragraphs of a docx: its text is one file of a zip, w:p are the paragraphs, w:t what
// stands in them (ECMA-376).
func letterLines(file io.ReaderAt, size int64) (lines []string, err error) {
	pack, err := zip.NewReader(file, size)
	if err != nil {
		return nil, err
	}
	text, err := pack.Open("word/document.xml")
	if err != nil {
		return nil, err
	}
	defer text.Close()
	read, line, inText := xml.NewDecoder(io.LimitReader(text, mostOfFile)), strings.Builder{}, false
	for {
		token, err := read.Token()
		if errors.Is(err, io.EOF) {
			return lines, nil
		} else if err != nil {
			return nil, err
		}
		switch is := token.(type) {
		case xml.StartElement:
			switch is.Name.Local {
			case "t":
				inText = true
			case "tab":
				line.WriteByte('\t')
			case "br":
				line.WriteByte('\n')
			}
		case xml.CharData:
			if inText {
				line.Write(is)
			}
		case xml.EndElement:
			switch is.Name.Local {
			case "t":
				inText = false
			case "p":
				lines = append(lines, strings.Split(strings.Trim(line.String(), " \t"), "\n")...)
				line.Reset()
			}
		}
	}
}
