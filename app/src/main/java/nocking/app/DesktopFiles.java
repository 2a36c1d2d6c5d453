package nocking.app;

import java.io.File;
import java.nio.file.Path;
import java.util.Optional;
import javafx.stage.FileChooser;
import javafx.stage.FileChooser.ExtensionFilter;
import javafx.stage.Stage;
import nocking.app.step.Files;

/** The system's file dialogs. */
final class DesktopFiles implements Files {
  private final Stage stage;

  DesktopFiles(Stage stage) {
    this.stage = stage;
  }

  @Override
  public Optional<Path> toOpen(String kind, String... endings) {
    var chooser = new FileChooser();
    chooser.getExtensionFilters().add(new ExtensionFilter(kind, endings));
    return Optional.ofNullable(chooser.showOpenDialog(stage)).map(File::toPath);
  }

  @Override
  public Optional<Path> toSave(String kind, String suggestedName, String ending) {
    var chooser = new FileChooser();
    chooser.getExtensionFilters().add(new ExtensionFilter(kind, "*" + ending));
    chooser.setInitialFileName(suggestedName);
    return Optional.ofNullable(chooser.showSaveDialog(stage))
        .map(f -> f.getName().endsWith(ending) ? f.toPath() : Path.of(f + ending));
  }
}
