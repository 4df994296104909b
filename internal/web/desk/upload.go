package desk

import (
	"errors"
	"fmt"
	"io"
	"mime/multipart"
	"net/http"
	"syscall"
	"unicode/utf8"
)

// Errors of what was sent; no page of a plan can say them.
var (
	ErrText = errors.New("not UTF-8")
	ErrForm = errors.New("no whole form")
)

// Upload is a file that was sent in a form, with its name; [http.ErrMissingFile] where there
// is none.
func Upload(r *http.Request, field string) (multipart.File, string, error) {
	file, header, err := r.FormFile(field)
	if errors.Is(err, http.ErrNotMultipart) {
		return nil, "", http.ErrMissingFile
	}
	if err != nil {
		return nil, "", broken(err)
	}
	if err := TextOnly(r.PostForm); err == nil && utf8.ValidString(header.Filename) {
		return file, header.Filename, nil
	}
	return nil, "", errors.Join(ErrText, file.Close())
}

// NextFile is the next file of a form that is read while it comes in, passing over the form's
// other fields; [http.ErrMissingFile] where there is none.
func NextFile(form *multipart.Reader, field string) (*multipart.Part, error) {
	for {
		part, err := form.NextPart()
		switch {
		case errors.Is(err, io.EOF):
			return nil, http.ErrMissingFile
		case err != nil:
			return nil, broken(err)
		case part.FormName() != field || part.FileName() == "":
			continue
		case !utf8.ValidString(part.FileName()):
			return nil, ErrText
		}
		return part, nil
	}
}

// broken says of an error in reading a form that it is the form's, unless it is another one.
func broken(err error) error {
	var tooLarge *http.MaxBytesError
	if errors.Is(err, http.ErrMissingFile) || errors.As(err, &tooLarge) || errors.Is(err, syscall.ENOSPC) {
		return err
	}
	return fmt.Errorf("%w: %w", ErrForm, err)
}

// TextOnly makes sure that the fields of a form are text.
func TextOnly(form map[string][]string) error {
	for key, values := range form {
		for _, v := range append(values, key) {
			if !utf8.ValidString(v) {
				return ErrText
			}
		}
	}
	return nil
}
