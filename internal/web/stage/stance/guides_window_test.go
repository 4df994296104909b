//go:build !markup

package stance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/demo"
	"valiantmule/internal/web/webtest"
)

// TestWallow walks a guide as a rider does: a measurement is answered, a change is seen on the
// bench before it is made, made, ridden, and found worse; then it stands as before, and each
// step is there to be undone.
func TestWallow(t *testing.T) {
	s := webtest.New(t)
	w, _ := s.Desktop(t, "symptoms?loadout=travel")
	preload := func() string {
		l, err := s.Newest(t, demo.Rider).Loadout("travel")
		require.NoError(t, err)
		return l.Setting.RearPreload.String()
	}
	w.Follow(`.guide-list a[href*="guide=wallow"]`)
	w.Follow(`.guide-answers button[value="soft"]`)
	w.Bench("More preload behind")
	assert.Equal(t, "", preload(), "it is only looked at")
	assert.Contains(t, w.Text(`document.querySelector('#bench').textContent`), "Rear sag")
	revisions := s.Revisions(t)
	w.Follow(`.guide-answers button[value="set"]`)
	assert.NotEqual(t, "", preload())
	w.Until(`document.querySelector('.guide-answers button[value="better"]') !== null`)
	w.Follow(`.guide-answers button[value="worse"]`)
	assert.Equal(t, "", preload(), "taken back")
	assert.Equal(t, revisions+2, s.Revisions(t), "each step is written down")
	assert.Contains(t, w.Text(`document.querySelector('.guide-words').textContent`), "rebound")
	assert.Equal(t, "3", w.Text(`String(document.querySelectorAll('.trail li').length)`))
	w.Follow(`form[action$="/undo"] button`)
	assert.NotEqual(t, "", preload(), "undone")
	assert.Contains(t, w.Text(`document.querySelector('.guide-words').textContent`), "preload")
}

// TestClickers: clicks by surface for the loadout, a mistake beside its field, and what is in
// the bike into the record.
func TestClickers(t *testing.T) {
	s := webtest.New(t)
	w, path := s.Desktop(t, "clickers?loadout=travel")
	assert.NotEqual(t, "", w.Text(`document.querySelector('[name="rock.fork_rebound"] + .sub').textContent`), "it says what to try")
	w.Fill(`[name="rock.fork_rebound"]`, "99")
	w.Until(`document.querySelector('.click-cell.has-error .error') !== null`)
	w.Fill(`[name="rock.fork_rebound"]`, "14")
	w.Until(`document.querySelector('.click-cell.has-error') === null`)
	w.Fill(`[name="now.shock_rebound"]`, "9")
	w.Follow("#save")
	p := s.Newest(t, demo.Rider)
	l, err := p.Loadout("travel")
	require.NoError(t, err)
	assert.Equal(t, "14", l.ClicksOn("rock").ForkRebound.String())
	assert.Equal(t, "9", p.Clicks.ShockRebound.String())
	w.Open(path + "/clickers?loadout=travel")
	w.Fill("#f-oil", "7.5, 130 mm, spring 2026")
	w.Follow("#record")
	facts := map[string]string{}
	for _, f := range s.Newest(t, demo.Rider).Baseline.AsBuilt {
		facts[f.Name] = f.Value
	}
	assert.Equal(t, "7.5, 130 mm, spring 2026", facts["Fork oil and level"])
	assert.Contains(t, facts["Shock clicks, as set"], "rebound 9")
	assert.Contains(t, facts, "Shock spring")
}
