package main

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"valiantmule/internal/web"
	"valiantmule/internal/web/desk"
)

// missing are the pictures of stages and more that the readme does not link, or that
// are not there.
func missing(t *testing.T, stages []desk.Stage) (names []string) {
	readme, err := os.ReadFile("../../README.md")
	require.NoError(t, err)
	for _, v := range views(stages) {
		file := "docs/screenshots/" + v.name + ".png"
		_, err := os.Stat("../../" + file)
		if err != nil || !strings.Contains(string(readme), "]("+file+")") {
			names = append(names, v.name)
		}
	}
	return names
}

func TestEveryPictureIsLinked(t *testing.T) {
	assert.Empty(t, missing(t, web.Stages()))
	assert.Equal(t, []string{"throwaway"}, missing(t, append(web.Stages(), desk.Stage{ID: "throwaway"})), "a new stage is missed")
	taken, err := os.ReadDir("../../docs/screenshots")
	require.NoError(t, err)
	assert.Len(t, taken, len(views(web.Stages())), "none is left over")
}
