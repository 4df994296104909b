package ready_test

import (
	"testing"

	"valiantmule/internal/core/study/ready"
	"valiantmule/internal/studytest"
)

func TestGolden(t *testing.T) { studytest.Golden(t, ready.Study) }

func TestGoldenEdges(t *testing.T) { studytest.Edges(t, ready.Study) }
