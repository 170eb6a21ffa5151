//! PDF from the sheet's SVG pages: text stays text, fonts are embedded.

use crate::{Paper, Subject, measurement_pages};
use krilla::Document;
use krilla::geom::Size;
use krilla::page::PageSettings;
use krilla_svg::{SurfaceExt, SvgSettings};
use std::sync::{Arc, OnceLock};
use thiserror::Error;
use usvg::fontdb::Database;

/// A fault of the program: a sheet that can't be made into a PDF.
#[derive(Debug, Error)]
#[error("the sheet can't be made into a PDF: {0}")]
pub struct PdfError(String);

/// The bundled fonts, both under the SIL Open Font License.
fn fonts() -> Arc<Database> {
    static FONTS: OnceLock<Arc<Database>> = OnceLock::new();
    let load = || {
        let mut fonts = Database::new();
        // Instances of the variable fonts that the screens use, each of one weight: what is asked for is what is printed.
        fonts.load_font_data(include_bytes!("../../core/fonts/PublicSans-Regular.ttf").to_vec());
        fonts.load_font_data(include_bytes!("../../core/fonts/PublicSans-Bold.ttf").to_vec());
        fonts.load_font_data(
            include_bytes!("../../core/fonts/BricolageGrotesque-Bold.ttf").to_vec(),
        );
        Arc::new(fonts)
    };
    FONTS.get_or_init(load).clone()
}

/// The measurement sheet as a PDF of one or more pages.
///
/// # Errors
/// When the program's own drawing can't be converted: a fault of ours, whatever the layout.
pub fn measurement_pdf(subject: &Subject<'_>, paper: Paper) -> Result<Vec<u8>, PdfError> {
    let size = paper.points();
    pdf_of(
        measurement_pages(subject, paper)
            .into_iter()
            .map(|svg| (svg, size)),
    )
}

/// Drawings as the pages of a PDF, each with its paper's width and height in points.
pub(crate) fn pdf_of(
    pages: impl Iterator<Item = (String, (f64, f64))>,
) -> Result<Vec<u8>, PdfError> {
    let wrong = |e: &dyn std::fmt::Display| PdfError(e.to_string());
    let options = usvg::Options {
        fontdb: fonts(),
        font_family: "Public Sans".to_owned(),
        ..usvg::Options::default()
    };
    let mut document = Document::new();
    for (svg, (width, height)) in pages {
        let size = Size::from_wh(width as f32, height as f32)
            .ok_or_else(|| PdfError("the paper has no size".to_owned()))?;
        let tree = usvg::Tree::from_str(&svg, &options).map_err(|e| wrong(&e))?;
        let settings = PageSettings::from_wh(width as f32, height as f32)
            .ok_or_else(|| PdfError("the paper has no size".to_owned()))?;
        let mut page = document.start_page_with(settings);
        let mut surface = page.surface();
        surface
            .draw_svg(&tree, size, SvgSettings::default())
            .ok_or_else(|| PdfError("a page can't be drawn".to_owned()))?;
        surface.finish();
        page.finish();
    }
    document.finish().map_err(|e| PdfError(format!("{e:?}")))
}
