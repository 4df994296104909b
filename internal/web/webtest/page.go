package webtest

import (
	"net/url"
	"regexp"
	"strings"

	"valiantmule/internal/web"
)

// Form reads the fields of a stage's form as a browser would send them.
func Form(page string) url.Values {
	_, form, _ := strings.Cut(page, `class="stage-form"`)
	form, _, _ = strings.Cut(form, "</form>")
	return FormIn(form)
}

// FormIn reads the fields of a form's markup.
func FormIn(form string) url.Values {
	values := url.Values{}
	for _, m := range regexp.MustCompile(`<input[^>]*>`).FindAllString(form, -1) {
		if strings.Contains(m, "checkbox") && !strings.Contains(m, "checked") {
			continue
		}
		values.Set(attribute(m, "name"), attribute(m, "value"))
	}
	for _, m := range regexp.MustCompile(`(?s)<select[^>]*name="([^"]*)"[^>]*>(.*?)</select>`).FindAllStringSubmatch(form, -1) {
		chosen := regexp.MustCompile(`value="([^"]*)" selected`).FindStringSubmatch(m[2])
		if chosen == nil {
			chosen = regexp.MustCompile(`value="([^"]*)"`).FindStringSubmatch(m[2])
		}
		values.Set(m[1], chosen[1])
	}
	return values
}

func attribute(tag, name string) string {
	m := regexp.MustCompile(`\s` + name + `="([^"]*)"`).FindStringSubmatch(tag)
	if m == nil {
		return ""
	}
	return strings.NewReplacer("&amp;", "&", "&#34;", `"`, "&#43;", "+", "&lt;", "<", "&gt;", ">").Replace(m[1])
}

// Saved is a page without the ids of the saves that its forms would make, which are new
// each time.
func Saved(page string) string {
	return regexp.MustCompile(`name="save" value="[^"]*"`).ReplaceAllString(page, "")
}

// Base is the revision that the forms of a page start from.
func Base(page string) string {
	return regexp.MustCompile(`name="base" value="([^"]*)"`).FindStringSubmatch(page)[1]
}

// Gauge is a gauge's state and shown value in the verdict strip.
func Gauge(page, id string) string {
	m := regexp.MustCompile(`(?s)data-gauge="` + id + `" data-state="([^"]*)".*?gauge-now">([^<]*)<`).FindStringSubmatch(page)
	if m == nil {
		return ""
	}
	return m[1] + " " + strings.ReplaceAll(m[2], "\u00a0", " ")
}

// PageIDs are the pages of all stages.
func PageIDs() (ids []string) {
	for _, st := range web.Stages() {
		for _, p := range st.Pages {
			ids = append(ids, p.ID)
		}
	}
	return ids
}
