package log

import (
	"cmp"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"slices"
	"strconv"

	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/track"
	"valiantmule/internal/format/gpx"
	"valiantmule/internal/web/desk"
)

const maxTrack = gpx.MaxBytes

// trackDay puts the length of a day's track into the form; nothing of it is kept.
func trackDay(s *desk.House, w http.ResponseWriter, r *http.Request) error {
	d, err := s.Open(r)
	if err != nil {
		return err
	}
	form, why := trackForm(d, r)
	v := logOf(d, "", "", form, nil)
	v.TrackError = why
	status := http.StatusOK
	if why != "" {
		status = http.StatusUnprocessableEntity
	}
	return s.ShowPage(w, r, status, d, "log", nil, v)
}

// trackForm is the form of the day that a file tells of, of several the first that is not in the log yet; or why it
// tells of none.
func trackForm(d *desk.Desk, r *http.Request) (form url.Values, why string) {
	file, name, err := desk.Upload(r, "file")
	if err != nil {
		return nil, "Choose a GPX file first."
	}
	defer file.Close()
	read, err := gpx.Read(file)
	var tooLarge *http.MaxBytesError
	switch {
	case errors.As(err, &tooLarge):
		return nil, fmt.Sprintf("%s is larger than the %d MB that are taken here.", name, gpx.MaxBytes>>20)
	case err != nil:
		return nil, fmt.Sprintf("%s was not taken. %v.", name, err)
	case len(read.Tracks) == 0:
		return nil, name + " has no track in it."
	}
	days := track.Days(read.Tracks)
	if len(days) == 0 {
		return nil, name + " has a track of no length in it."
	}
	written := map[string]bool{}
	for _, r := range d.Plan.ReadingsOf(logbook.DayRidden) {
		written[r.On] = true
	}
	at := max(0, slices.IndexFunc(days, func(day track.Day) bool { return !written[day.On] }))
	own, _ := d.Units.Convert(track.Measure(days[at].Points).LengthKm(), "km")
	form = url.Values{
		"on": {cmp.Or(days[at].On, desk.Today())}, "distance": {d.Units.Shown(strconv.FormatFloat(own, 'f', 1, 64))}, "by": {string(logbook.ByGPS)}, "as": {d.Loadout},
	}
	if len(days) > 1 {
		form.Set("track", fmt.Sprintf("%s has %d days in it. This is the first that is not written down yet; bring the file again for the next.", name, len(days)))
	}
	return form, ""
}
