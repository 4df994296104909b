package web_test

import (
	"encoding/json"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"valiantmule/internal/web/webtest"
)

// crowd is what a process of riders does to a site; it is told in the environment.
type crowd struct {
	Riders int
	// Pages are asked for in turn, each rider beginning at another.
	Pages []string
	// Answers is how many each rider waits for.
	Answers int
	// Every is a rider's pace; 0 is without a pause.
	Every   time.Duration
	Cookies string
}

// crowdVariable holds a crowd for a test binary that is to be one.
const crowdVariable = "MULE_TEST_CROWD"

// ridersOf is how long each answer to a crowd took, the quickest first. The crowd is
// this test binary again: what it costs to ask is not the server's.
func ridersOf(b *testing.B, c crowd) (took []time.Duration) {
	b.Helper()
	told, err := json.Marshal(c)
	require.NoError(b, err)
	process := exec.Command(os.Args[0])
	process.Env = append(os.Environ(), crowdVariable+"="+string(told))
	process.Stderr = os.Stderr
	said, err := process.Output()
	require.NoError(b, err)
	require.NoError(b, json.Unmarshal(said, &took))
	require.NotEmpty(b, took)
	slices.Sort(took)
	return took
}

// cookies of a visitor, as a header.
func cookies(v *webtest.Visitor) string {
	at, err := url.Parse(v.Site.URL)
	require.NoError(v.TB, err)
	var all []string
	for _, c := range v.Client.Jar.Cookies(at) {
		all = append(all, c.String())
	}
	return strings.Join(all, "; ")
}

// ride is a crowd at work.
func (c crowd) ride() (took []time.Duration, err error) {
	jar, err := cookiejar.New(nil)
	if err != nil {
		return nil, err
	}
	client := &http.Client{Jar: jar, Transport: &http.Transport{MaxIdleConnsPerHost: c.Riders}}
	var lock sync.Mutex
	var all sync.WaitGroup
	for rider := range c.Riders {
		all.Go(func() {
			if c.Every > 0 {
				time.Sleep(c.Every * time.Duration(rider) / time.Duration(c.Riders)) // they do not all come at once
			}
			for n := range c.Answers {
				start := time.Now()
				failed := c.ask(client, c.Pages[(rider+n)%len(c.Pages)])
				lasted := time.Since(start)
				lock.Lock()
				took = append(took, lasted)
				if failed != nil {
					err = failed
				}
				lock.Unlock()
				time.Sleep(c.Every - lasted)
			}
		})
	}
	all.Wait()
	return took, err
}

func (c crowd) ask(client *http.Client, page string) error {
	r, err := http.NewRequest(http.MethodGet, page, nil)
	if err != nil {
		return err
	}
	r.Header.Set("Cookie", c.Cookies)
	r.Header.Set("Accept-Encoding", "gzip") // and not unpacked here
	answer, err := client.Do(r)
	if err != nil {
		return err
	}
	defer answer.Body.Close()
	if answer.StatusCode != http.StatusOK {
		return &url.Error{Op: "Get", URL: page, Err: os.ErrInvalid}
	}
	_, err = io.Copy(io.Discard, answer.Body)
	return err
}

func TestMain(m *testing.M) {
	told := os.Getenv(crowdVariable)
	if told == "" {
		webtest.Main(m)
	}
	var c crowd
	err := json.Unmarshal([]byte(told), &c)
	var took []time.Duration
	if err == nil {
		took, err = c.ride()
	}
	if err == nil {
		err = json.NewEncoder(os.Stdout).Encode(took)
	}
	if err != nil {
		os.Stderr.WriteString(err.Error() + "\n")
		os.Exit(1)
	}
	os.Exit(0)
}
