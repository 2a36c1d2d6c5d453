package nocking.app.control;

import java.io.File;
import java.io.IOException;
import java.util.function.Consumer;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.image.Image;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.Region;
import javafx.stage.FileChooser;
import javax.imageio.ImageIO;
import nocking.book.BookException;
import nocking.book.FileTrouble;
import nocking.book.exchange.Output;
import nocking.report.plot.Palette;
import nocking.report.plot.Plot;
import nocking.report.plot.PlotPicture;

/** What can be done with a plot: as a picture into the clipboard, as PNG and SVG into a file. */
final class PlotMenu extends ContextMenu {
  private static final int SVG_WIDTH = 720;
  private static final int SVG_HEIGHT = 420;

  private final Region view;
  private final Plot plot;
  private final Consumer<String> say;

  /**
   * @param picture of the plot as it is seen
   * @param whole shows the whole plot again
   * @param say takes a sentence about what went wrong
   */
  PlotMenu(Region view, Plot plot, Image picture, Runnable whole, Consumer<String> say) {
    this.view = view;
    this.plot = plot;
    this.say = say;
    var copy = new MenuItem("Copy as picture");
    copy.setOnAction(
        e -> {
          var content = new ClipboardContent();
          content.putImage(picture);
          Clipboard.getSystemClipboard().setContent(content);
        });
    var png = new MenuItem("Save as PNG…");
    png.setOnAction(e -> save("PNG picture", "*.png", this::writePng));
    var svg = new MenuItem("Save as SVG…");
    svg.setOnAction(
        e ->
            save(
                "SVG drawing",
                "*.svg",
                f ->
                    Output.write(
                        f.toPath(),
                        PlotPicture.svg(plot, Palette.LIGHT, SVG_WIDTH, SVG_HEIGHT),
                        true)));
    var back = new MenuItem("Whole plot");
    back.setOnAction(e -> whole.run());
    getItems().addAll(copy, png, svg, back);
  }

  private void save(String kind, String pattern, Consumer<File> write) {
    var chooser = new FileChooser();
    chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter(kind, pattern));
    File file = chooser.showSaveDialog(view.getScene().getWindow());
    if (file == null) return;
    try {
      write.accept(file);
    } catch (BookException e) {
      say.accept(e.getMessage());
    }
  }

  private void writePng(File file) {
    try {
      PlotPicture fine =
          PlotPicture.draw(plot, Palette.LIGHT, view.getWidth(), view.getHeight(), 2);
      ImageIO.write(fine.image(), "png", file);
    } catch (IOException e) {
      throw new BookException(
          BookException.Cause.OUTSIDE,
          file + " cannot be written: " + FileTrouble.why(file.toPath(), e),
          e);
    }
  }
}
