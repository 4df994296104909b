package electrics_test

import (
	"testing"

	"valiantmule/internal/core/study/electrics"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, electrics.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, electrics.Study) }
