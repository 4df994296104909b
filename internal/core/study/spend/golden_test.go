package spend_test

import (
	"testing"

	"valiantmule/internal/core/study/spend"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, spend.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, spend.Study) }
