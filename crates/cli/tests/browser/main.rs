//! The application as people use it, in a browser.

mod house;
mod maker;
mod people;
mod picture;
mod support;
mod table;
