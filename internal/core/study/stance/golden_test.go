package stance_test

import (
	"testing"

	"valiantmule/internal/core/study/stance"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, stance.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, stance.Study) }
