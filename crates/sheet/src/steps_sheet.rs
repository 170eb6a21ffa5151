//! The steps of making a page on paper: a box to tick for each, what to do, and what to mind.

use crate::outline::num;
use crate::pdf::{PdfError, pdf_of};
use crate::words::escaped;
use std::fmt::Write;

/// Letter paper, in points; on A4 it prints with a little more white below.
const PAPER: (f64, f64) = (612.0, 780.0);
const MARGIN: f64 = 42.0;
/// From one line to the next.
const LINE: f64 = 14.0;
/// Between two steps.
const GAP: f64 = 7.0;
/// So many characters go on a line: the type's usual width leaves some room to spare.
const ACROSS: usize = 88;

/// A step on paper.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct StepOnPaper {
    /// What to do.
    pub text: String,
    /// What else to know, why it comes here, what to check before, where a hand can be hurt.
    pub notes: Vec<String>,
    /// It is done already.
    pub is_done: bool,
}

/// Words on lines of at most so many characters; a longer word has a line of its own.
fn wrapped(text: &str, across: usize) -> Vec<String> {
    let mut lines: Vec<String> = Vec::new();
    for word in text.split_whitespace() {
        match lines.last_mut() {
            Some(line) if line.chars().count() + 1 + word.chars().count() <= across => {
                line.push(' ');
                line.push_str(word);
            }
            _ => lines.push(word.to_owned()),
        }
    }
    lines
}

struct Written {
    /// Lines of text with whether they are notes.
    lines: Vec<(String, bool)>,
    is_done: bool,
}

impl Written {
    fn of(n: usize, step: &StepOnPaper) -> Written {
        let text = wrapped(&format!("{n}. {}", step.text), ACROSS);
        let notes = step.notes.iter().flat_map(|note| wrapped(note, ACROSS));
        let lines = text.into_iter().map(|l| (l, false));
        Written {
            lines: lines.chain(notes.map(|l| (l, true))).collect(),
            is_done: step.is_done,
        }
    }

    fn high(&self) -> f64 {
        self.lines.len() as f64 * LINE + GAP
    }

    fn draw(&self, svg: &mut String, top: f64) {
        let _ = write!(
            svg,
            "<rect class=\"tick\" x=\"{0}\" y=\"{1}\" width=\"9\" height=\"9\" fill=\"none\" stroke=\"#17263b\"/>",
            num(MARGIN),
            num(top + 2.0)
        );
        if self.is_done {
            let _ = write!(
                svg,
                "<path d=\"M{} {}l3 3l5 -7\" fill=\"none\" stroke=\"#17263b\" stroke-width=\"1.4\"/>",
                num(MARGIN + 1.0),
                num(top + 6.0)
            );
        }
        for (n, (line, is_note)) in self.lines.iter().enumerate() {
            let (size, fill) = if *is_note {
                (9.5, "#51617a")
            } else {
                (11.0, "#17263b")
            };
            let _ = write!(
                svg,
                "<text x=\"{}\" y=\"{}\" font-size=\"{size}\" fill=\"{fill}\">{}</text>",
                num(MARGIN + 18.0),
                num(top + 10.0 + n as f64 * LINE),
                escaped(line)
            );
        }
    }
}

/// The pages: no step is torn apart.
fn pages(title: &str, steps: &[StepOnPaper]) -> Vec<String> {
    let mut pages: Vec<String> = Vec::new();
    let mut top = PAPER.1;
    for (n, step) in (1..).zip(steps) {
        let written = Written::of(n, step);
        if top + written.high() > PAPER.1 - MARGIN {
            let head = if pages.is_empty() {
                title.to_owned()
            } else {
                format!("{title}, page {}", pages.len() + 1)
            };
            pages.push(format!(
                "<text x=\"{}\" y=\"{}\" font-size=\"15\" font-weight=\"700\" fill=\"#17263b\">{}</text>",
                num(MARGIN),
                num(MARGIN + 8.0),
                escaped(&head)
            ));
            top = MARGIN + 26.0;
        }
        if let Some(page) = pages.last_mut() {
            written.draw(page, top);
        }
        top += written.high();
    }
    pages
}

/// The steps as a PDF of one or more pages.
///
/// # Errors
/// When the program's own drawing can't be converted: a fault of ours.
pub fn steps_pdf(title: &str, steps: &[StepOnPaper]) -> Result<Vec<u8>, PdfError> {
    let svg = |content: String| {
        let svg = format!(
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{0}pt\" height=\"{1}pt\" viewBox=\"0 0 {0} {1}\"><rect width=\"{0}\" height=\"{1}\" fill=\"#ffffff\"/>{content}</svg>",
            num(PAPER.0),
            num(PAPER.1)
        );
        (svg, PAPER)
    };
    pdf_of(pages(title, steps).into_iter().map(svg))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn step(words: usize, is_done: bool) -> StepOnPaper {
        StepOnPaper {
            text: "glue ".repeat(words).trim().to_owned(),
            notes: vec!["Before the cluster: <it> would be shut in.".to_owned()],
            is_done,
        }
    }

    #[test]
    fn every_step_has_a_box_and_none_is_torn_apart() {
        let steps: Vec<StepOnPaper> = (0..60).map(|n| step(5 + n % 40, n < 3)).collect();
        let pages = pages("Kites", &steps);
        assert!(pages.len() > 2);
        let boxes: usize = pages
            .iter()
            .map(|p| p.matches("class=\"tick\"").count())
            .sum();
        let ticks: usize = pages.iter().map(|p| p.matches("l3 3l5 -7").count()).sum();
        assert_eq!((boxes, ticks), (60, 3));
        assert!(pages[1].contains("Kites, page 2"));
        assert!(pages[0].contains("&lt;it&gt;"));
        // Each page ends above the margin: the last line stands on the paper.
        for page in &pages {
            let ys = page
                .split(" y=\"")
                .skip(1)
                .filter_map(|t| t.split('"').next()?.parse::<f64>().ok());
            assert!(ys.fold(0.0, f64::max) <= PAPER.1 - MARGIN);
        }
    }

    #[test]
    fn words_are_kept_whole_and_all_of_them() {
        let lines = wrapped("one two three, a_word_that_is_longer_than_a_line four", 14);
        assert_eq!(
            lines,
            [
                "one two three,",
                "a_word_that_is_longer_than_a_line",
                "four"
            ]
        );
        assert!(
            steps_pdf("Kites", &[step(3, false)])
                .expect("it is drawn")
                .starts_with(b"%PDF")
        );
    }
}
