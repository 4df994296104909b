package desk

import (
	"errors"
	"fmt"
	"io"
	"net/http"

	"valiantmule/internal/format/table"
)

// CSVView is a list as a file: where it is had, and one that was looked through.
type CSVView struct {
	File, Import  string
	CSV, CSVError string // as it was sent, and why none of it was taken
	CSVRows       []CSVRow
	Good          int
}

// CSVRow is a row of a file that was looked at.
type CSVRow struct {
	Line       int
	Text, Says string
	Bad        bool
}

// Attach says that what follows is a file to keep.
func Attach(w http.ResponseWriter, contentType, name string) {
	w.Header().Set("Content-Type", contentType)
	w.Header().Set("Content-Disposition", fmt.Sprintf("attachment; filename=%q", name))
}

// SentFile is the text of a file that was sent, or of what was pasted.
func SentFile(r *http.Request) (string, error) {
	file, _, err := Upload(r, "file")
	if errors.Is(err, http.ErrMissingFile) {
		return r.PostFormValue("csv"), TextOnly(r.PostForm)
	}
	if err != nil {
		return "", err
	}
	defer file.Close()
	text, err := io.ReadAll(io.LimitReader(file, table.MaxBytes+1))
	return string(text), err
}
