package webtest

import (
	"bytes"
	"io"
	"mime/multipart"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/plan"
	"valiantmule/internal/format"
	"valiantmule/internal/web/desk"
)

// Visitor is a browser without a screen.
type Visitor struct {
	TB     testing.TB
	Site   *Site
	Client *http.Client
}

// FirstPlan is the path of the plan on top in the garage.
func (v *Visitor) FirstPlan() string {
	page := v.Page("/garage")
	return regexp.MustCompile(`/plans/[A-Z0-9]+`).FindString(page)
}

// BikeOf is the path of the bike by itself that a plan rides.
func (v *Visitor) BikeOf(plan string) string {
	v.TB.Helper()
	path := regexp.MustCompile(`/bikes/[A-Z0-9]+`).FindString(v.Page(plan + "/sheet"))
	require.NotEmpty(v.TB, path)
	return path
}

// FirstPart is the path of the part on top of the list of the rider's own.
func (v *Visitor) FirstPart() string {
	v.TB.Helper()
	path := regexp.MustCompile(`/parts/[A-Z2-7]{26}`).FindString(v.Page("/parts?where=all"))
	require.NotEmpty(v.TB, path)
	return path
}

// Do sends a request; a redirect is an answer.
func (v *Visitor) Do(r *http.Request) (int, string, http.Header) {
	v.TB.Helper()
	answer, err := v.Client.Do(r)
	require.NoError(v.TB, err)
	defer answer.Body.Close()
	body, err := io.ReadAll(answer.Body)
	require.NoError(v.TB, err)
	return answer.StatusCode, string(body), answer.Header
}

// Request to a path of the site.
func (v *Visitor) Request(method, path string, body io.Reader) *http.Request {
	v.TB.Helper()
	r, err := http.NewRequest(method, v.Site.URL+path, body)
	require.NoError(v.TB, err)
	return r
}

// Get is the answer at a path.
func (v *Visitor) Get(path string) (int, string, http.Header) {
	v.TB.Helper()
	return v.Do(v.Request(http.MethodGet, path, nil))
}

// SessionCookie is the cookie of the session that an answer sets, "" for none.
func SessionCookie(header http.Header) string {
	for _, cookie := range header.Values("Set-Cookie") {
		if strings.HasPrefix(strings.TrimPrefix(cookie, desk.HostOnly), "mule=") {
			return cookie
		}
	}
	return ""
}

// Page gets a page that must be there.
func (v *Visitor) Page(path string) string {
	v.TB.Helper()
	status, body, _ := v.Get(path)
	require.Equal(v.TB, http.StatusOK, status, path)
	return body
}

// Post sends a form.
func (v *Visitor) Post(path string, form url.Values) (int, string, http.Header) {
	v.TB.Helper()
	r := v.Request(http.MethodPost, path, strings.NewReader(form.Encode()))
	r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	return v.Do(r)
}

// Upload sends a file in a form, with other fields of it as pairs.
func (v *Visitor) Upload(path, name string, content []byte, fields ...string) (int, string, http.Header) {
	v.TB.Helper()
	var body bytes.Buffer
	w := multipart.NewWriter(&body)
	for i := 0; i+1 < len(fields); i += 2 {
		require.NoError(v.TB, w.WriteField(fields[i], fields[i+1]))
	}
	file, err := w.CreateFormFile("file", name)
	require.NoError(v.TB, err)
	_, err = file.Write(content)
	require.NoError(v.TB, err)
	require.NoError(v.TB, w.Close())
	r := v.Request(http.MethodPost, path, &body)
	r.Header.Set("Content-Type", w.FormDataContentType())
	return v.Do(r)
}

// Parts asks for parts of a page.
func (v *Visitor) Parts(path string, ids ...string) string {
	v.TB.Helper()
	r := v.Request(http.MethodGet, path, nil)
	r.Header.Set(desk.PartsHeader, strings.Join(ids, ","))
	status, body, header := v.Do(r)
	require.Equal(v.TB, http.StatusOK, status, path)
	require.Contains(v.TB, header.Values("Vary"), desk.PartsHeader)
	return body
}

// Stored is a plan as it is exported.
func (v *Visitor) Stored(path string) *plan.Plan {
	v.TB.Helper()
	p, err := format.ReadPlan(strings.NewReader(v.Page(path + "/export")))
	require.NoError(v.TB, err)
	return p
}
