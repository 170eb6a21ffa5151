//! A station's section of a plan: its decisions, whether they are settled, and every field that is not understood here.

use super::grounds::Grounds;
use super::stations::{State, Station};
use crate::building::BuildDecisions;
use crate::calls::CallDecisions;
use crate::clusters::ClusterDecisions;
use crate::cutting::CutDecisions;
use crate::document::{Findings, Node};
use crate::fit::{FitDecisions, PhotoDecisions, SketchDecisions};
use crate::log::LogDecisions;
use crate::papers::PaperDecisions;
use crate::sketch::Reader;
use crate::words::WordsDecisions;
use serde_json::{Map, Value};

/// One section, as read.
#[derive(Clone, Debug, PartialEq)]
pub struct Section<D> {
    /// What is decided there.
    pub decisions: D,
    /// What the maker said of it.
    pub mark: Mark,
    /// The section as written, with the fields that nothing here understands.
    document: Map<String, Value>,
}

impl<D> Section<D> {
    /// Writes it, unknown fields and all.
    pub fn to_json(&self) -> Value {
        Value::Object(self.document.clone())
    }
}

/// What a maker said of a station.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Mark {
    /// `settled`, or `needs-a-look` where she wants to come back to it; otherwise open.
    pub state: Option<State>,
    /// What she settled it on.
    pub grounds: Grounds,
}

/// Decisions as a section reads them from its object.
pub(crate) trait Decisions: Sized {
    /// What of the stations before is needed to check them.
    type Before<'a>: Copy;

    /// Reads and checks them; `None` where something is wrong, with its findings.
    fn read(
        node: &Node<'_>,
        reader: Reader,
        before: Self::Before<'_>,
        findings: &Findings,
    ) -> Option<Self>;
}

impl Decisions for CallDecisions {
    type Before<'a> = ();

    fn read(node: &Node<'_>, reader: Reader, (): (), findings: &Findings) -> Option<CallDecisions> {
        CallDecisions::read(node, reader, findings)
    }
}

impl Decisions for SketchDecisions {
    type Before<'a> = ();

    fn read(node: &Node<'_>, _: Reader, (): (), findings: &Findings) -> Option<SketchDecisions> {
        SketchDecisions::read(node, findings)
    }
}

impl Decisions for PhotoDecisions {
    type Before<'a> = ();

    fn read(node: &Node<'_>, reader: Reader, (): (), _: &Findings) -> Option<PhotoDecisions> {
        PhotoDecisions::read(node, reader)
    }
}

impl Decisions for PaperDecisions {
    type Before<'a> = ();

    fn read(node: &Node<'_>, reader: Reader, (): (), _: &Findings) -> Option<PaperDecisions> {
        PaperDecisions::read(node, reader.unit)
    }
}

impl Decisions for CutDecisions {
    type Before<'a> = ();

    fn read(node: &Node<'_>, reader: Reader, (): (), _: &Findings) -> Option<CutDecisions> {
        CutDecisions::read(node, reader.unit)
    }
}

impl Decisions for ClusterDecisions {
    type Before<'a> = ();

    fn read(node: &Node<'_>, reader: Reader, (): (), _: &Findings) -> Option<ClusterDecisions> {
        ClusterDecisions::read(node, reader.unit)
    }
}

impl Decisions for LogDecisions {
    type Before<'a> = ();

    fn read(node: &Node<'_>, reader: Reader, (): (), _: &Findings) -> Option<LogDecisions> {
        LogDecisions::read(node, reader.unit)
    }
}

impl Decisions for BuildDecisions {
    type Before<'a> = ();

    fn read(node: &Node<'_>, reader: Reader, (): (), _: &Findings) -> Option<BuildDecisions> {
        BuildDecisions::read(node, reader.unit)
    }
}

impl Decisions for WordsDecisions {
    type Before<'a> = ();

    fn read(node: &Node<'_>, reader: Reader, (): (), _: &Findings) -> Option<WordsDecisions> {
        WordsDecisions::read(node, reader.unit)
    }
}

impl Decisions for FitDecisions {
    type Before<'a> = (Option<&'a SketchDecisions>, Option<&'a PhotoDecisions>);

    fn read(
        node: &Node<'_>,
        reader: Reader,
        (sketch, photos): Self::Before<'_>,
        _: &Findings,
    ) -> Option<FitDecisions> {
        let fit = FitDecisions::read(node, reader, sketch.map(|s| &s.sketch))?;
        if let (Some(sketch), Some(photos)) = (sketch, photos) {
            fit.check_against(node, sketch, photos);
        }
        Some(fit)
    }
}

/// Reads a plan's section of a station; one that is left out is read as an empty one.
pub(crate) fn read<D: Decisions>(
    plan: &Node<'_>,
    station: Station,
    reader: Reader,
    before: D::Before<'_>,
    findings: &Findings,
) -> Option<Section<D>> {
    let empty = Value::Object(Map::new());
    let node = plan
        .get(station.name())
        .unwrap_or_else(|| plan.with(station.name(), &empty));
    let document = node.object()?.clone();
    let mark = read_mark(&node);
    let decisions = D::read(&node, reader, before, findings);
    Some(Section {
        decisions: decisions?,
        mark: mark?,
        document,
    })
}

fn read_mark(section: &Node<'_>) -> Option<Mark> {
    let state = match section.get("mark") {
        Some(mark) => mark.one_of(&State::NAMES, State::from_name).map(Some),
        None => Some(None),
    };
    let grounds = Grounds::read(section);
    Some(Mark {
        state: state?.filter(|s| *s != State::Open),
        grounds: grounds?,
    })
}
