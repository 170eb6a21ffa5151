//! Photos on paper: what shows of each print in its slot.

use crate::outline::{Frame, num, outline};
use base64::Engine;
use base64::engine::general_purpose::STANDARD;
use metrosk_core::layout::LayoutBlock;
use metrosk_core::sketch::Shape;
use std::collections::BTreeMap;

/// A print's picture.
#[derive(Clone, Debug)]
pub struct Picture {
    /// As JPEG, upright.
    pub jpeg: Vec<u8>,
    /// By how much it is turned on its print, clockwise: 0, 90, 180 or 270.
    pub turned: u32,
}

/// The pictures of prints, by the prints' ids.
pub type Pictures = BTreeMap<String, Picture>;

/// What shows of a photo's print, in its frame; none where the print has no picture.
pub(crate) fn shown(
    block: &LayoutBlock,
    f: Frame,
    ticks: f64,
    pictures: &Pictures,
) -> Option<String> {
    let placed = block.placement.as_ref()?;
    let picture = pictures.get(&placed.photo)?;
    let crop = placed.crop;
    let print = Frame {
        x: f.x - crop.x / crop.w * f.w,
        y: f.y - crop.y / crop.h * f.h,
        w: f.w / crop.w,
        h: f.h / crop.h,
    };
    let turn = block.block.turn;
    let turned = if turn == 0.0 {
        String::new()
    } else {
        format!(
            " transform=\"rotate({} {} {})\"",
            num(turn),
            num(f.cx()),
            num(f.cy())
        )
    };
    // A nested drawing cuts at its own sides; another shape has a clip of its own.
    let (clip, clipped) = if block.block.shape == Shape::Rect {
        (String::new(), String::new())
    } else {
        // An id may be any text; its bytes as digits may stand anywhere.
        let digits: String = block.block.id.bytes().map(|b| format!("{b:02x}")).collect();
        let id = format!("photo-{digits}");
        (
            format!(
                "<clipPath id=\"{id}\"><path d=\"{}\"/></clipPath>",
                outline(&block.block, f, ticks)
            ),
            format!(" clip-path=\"url(#{id})\""),
        )
    };
    let view = format!("{} {} {} {}", num(f.x), num(f.y), num(f.w), num(f.h));
    Some(format!(
        "<g{turned}>{clip}<g{clipped}><svg x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\" viewBox=\"{view}\" preserveAspectRatio=\"none\">{}</svg></g></g>",
        num(f.x),
        num(f.y),
        num(f.w),
        num(f.h),
        image(picture, print)
    ))
}

/// A picture over a frame, turned by quarters as it lies on its print.
pub(crate) fn image(picture: &Picture, on: Frame) -> String {
    let across = picture.turned.is_multiple_of(180);
    let (w, h) = if across { (on.w, on.h) } else { (on.h, on.w) };
    let turned = if picture.turned == 0 {
        String::new()
    } else {
        format!(
            " transform=\"rotate({} {} {})\"",
            picture.turned,
            num(on.cx()),
            num(on.cy())
        )
    };
    format!(
        "<image x=\"{}\" y=\"{}\" width=\"{}\" height=\"{}\" preserveAspectRatio=\"none\"{turned} href=\"data:image/jpeg;base64,{}\"/>",
        num(on.cx() - w / 2.0),
        num(on.cy() - h / 2.0),
        num(w),
        num(h),
        STANDARD.encode(&picture.jpeg)
    )
}
