package gearing_test

import (
	"testing"

	"valiantmule/internal/core/study/gearing"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, gearing.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, gearing.Study) }
