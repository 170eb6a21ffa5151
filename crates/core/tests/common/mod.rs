//! Shared by the tests of the fit: the invariants, drawn when they fail, and requests.

use metrosk_core::fit::{self, Outcome, Proposal, Request};
use metrosk_core::geometry::Span;
use serde_json::{Value, json};
use std::path::Path;

/// Page sizes that makers use: name, unit, width, height, margin, fold guard, ruler step.
pub(crate) const PAGES: [(&str, &str, f64, f64, f64, f64); 6] = [
    ("12x12", "in", 12.0, 12.0, 0.25, 0.125),
    ("letter", "in", 8.5, 11.0, 0.25, 0.125),
    ("8x8", "in", 8.0, 8.0, 0.25, 0.0625),
    ("6x8", "in", 6.0, 8.0, 0.25, 0.0625),
    ("A4", "mm", 210.0, 297.0, 6.0, 1.0),
    ("level letter", "in", 11.0, 8.5, 0.25, 0.125),
];

/// A fit request for a sketch on one of [`PAGES`], with more fields put over it.
pub(crate) fn request(sketch: &Value, page: usize, pages: u8, more: Value) -> Request {
    let (_, unit, w, h, room, step) = PAGES[page];
    let mut request = json!({
        "format": "metrosk-fit/1", "unit": unit, "sketch": sketch, "snap": step,
        "target": {"page": {"w": w, "h": h}, "pages": pages, "margin": room, "fold_guard": room},
    });
    if let (Value::Object(request), Value::Object(more)) = (&mut request, more) {
        request.extend(more);
    }
    Request::from_json(&request).expect("the test's own requests are valid")
}

/// The proposals for a request, each without a fault; a failing one is drawn.
pub(crate) fn sound(request: &Request) -> Vec<Proposal> {
    match fit::fit(request) {
        Outcome::Proposals(proposals) => {
            assert!(!proposals.is_empty());
            proposals.iter().for_each(|p| assert_sound(request, p));
            proposals
        }
        Outcome::Conflict(conflict) => panic!("{}: {conflict:?}", request.sketch.name),
    }
}

/// Fails, with a drawing, when a proposal breaks an invariant of layouts.
pub(crate) fn assert_sound(request: &Request, proposal: &Proposal) {
    let faults = proposal.faults(request);
    if !faults.is_empty() {
        let path = Path::new(env!("CARGO_TARGET_TMPDIR")).join("failing-layout.svg");
        std::fs::write(&path, fit::layout_svg(&proposal.layout))
            .expect("the drawing can be written");
        panic!(
            "{} by {}: {faults:?}, drawn in {}",
            request.sketch.name,
            proposal.approach.name(),
            path.display()
        );
    }
    assert_on_ruler(request, proposal);
}

/// Every box that is no exception (a mat, a whole print, what bleeds or ends at a page's edge) is on the ruler.
fn assert_on_ruler(request: &Request, proposal: &Proposal) {
    let step = request.snap.ticks();
    // A pin that a limit all but forbids may leave no room on the ruler; then the limit counts.
    if step == 0 || request.whole || !request.pins.is_empty() {
        return;
    }
    let page = request.target.page.w.ticks();
    for block in
        proposal.layout.blocks.iter().filter(|b| {
            b.block.kind.name() != "mat" && b.block.bleed.is_empty() && b.whole.is_none()
        })
    {
        let rect = block.block.rect;
        let start = if block.page == 1 { page } else { 0 };
        let at_edge = rect.right().ticks() % page == 0
            || rect.x.ticks() == start
            || rect.bottom() == request.target.page.h;
        if at_edge {
            continue;
        }
        for (what, ticks) in [
            ("left", rect.x.ticks() - start),
            ("top", rect.y.ticks()),
            ("width", rect.w.ticks()),
            ("height", rect.h.ticks()),
        ] {
            assert_eq!(
                ticks % step,
                0,
                "{} {what} of {} is off the ruler",
                proposal.approach.name(),
                block.block.id
            );
        }
    }
}

/// The whole target as a box.
#[allow(dead_code, reason = "not every test file looks at the canvas")]
pub(crate) fn canvas(request: &Request) -> Span {
    request.target.span()
}
