package ranging_test

import (
	"testing"

	"valiantmule/internal/core/study/ranging"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, ranging.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, ranging.Study) }
