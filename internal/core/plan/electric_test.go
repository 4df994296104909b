package plan_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/core/entry"
	"valiantmule/internal/core/logbook"
	"valiantmule/internal/core/money"
	"valiantmule/internal/core/parts"
	"valiantmule/internal/core/plan"
	"valiantmule/internal/demo"
)

// volts are readings as typed; "" was not read.
func volts(t *testing.T, idle, riding, all string) *logbook.Volts {
	t.Helper()
	v := &logbook.Volts{}
	for i, text := range []string{idle, riding, all} {
		require.NoError(t, v.Fields()[i].Entry.Enter(text, "V"))
	}
	return v
}

// TestVoltsBelieved: any one of them is a reading; none, another system's and more with all on
// than without are asked again, each at its field.
func TestVoltsBelieved(t *testing.T) {
	for _, v := range []*logbook.Volts{volts(t, "13.9", "", ""), volts(t, "", "14.2", "13.1"), volts(t, "12.4", "13.6", "13.8")} {
		assert.NoError(t, v.Check())
	}
	for field, v := range map[string]*logbook.Volts{"idle_v": volts(t, "27", "", ""), "riding_v": volts(t, "", "1.4", ""), "all_on_v": volts(t, "", "13.0", "14.1")} {
		var wrong entry.Problem
		require.ErrorAs(t, v.Check(), &wrong)
		assert.Equal(t, field, wrong.Path)
	}
	assert.Error(t, volts(t, "", "", "").Check())
}

// TestChannels are numbers as a box counts them, a fuse of its own, or nothing.
func TestChannels(t *testing.T) {
	p, err := demo.Plan()
	require.NoError(t, err)
	for channel, fine := range map[plan.Channel]bool{"": true, plan.OwnFuse: true, "1": true, "16": true, "17": false, "0": false, "-1": false, "01": false, "1.0": false, "roof": false} {
		changed := *p
		changed.Wired = []plan.Wired{{Slot: parts.Grips, Channel: channel}}
		assert.Equal(t, fine, len(changed.Validate()) == 0, "%q", channel)
	}
	assert.Equal(t, 12, plan.Channel("12").Number())
	assert.Zero(t, plan.OwnFuse.Number())
}

// TestLooksOnce: what is looked at is of the list, with its day.
func TestLooksOnce(t *testing.T) {
	whole, err := demo.Plan()
	require.NoError(t, err)
	p := *whole
	p.Seen = []plan.Look{{ID: "horn", On: "2026-11-20"}}
	assert.Empty(t, p.Validate())
	on, ok := p.SeenOf("horn")
	assert.True(t, ok)
	assert.Equal(t, "2026-11-20", on)
	p.Seen = []plan.Look{{ID: "rockets"}}
	assert.NotEmpty(t, p.Validate())
}

// TestAYear: a lamp costs a year what it costs over how long it lasts.
func TestAYear(t *testing.T) {
	lamp := &parts.Part{Slot: parts.DayLamps}
	_, ok := lamp.AYear()
	assert.False(t, ok)
	require.NoError(t, lamp.Say("lasts", "6 years"))
	lamp.Price = money.New(150_00, "EUR")
	amount, ok := lamp.AYear()
	require.True(t, ok)
	assert.Equal(t, "25.00 EUR", amount.String())
}
