package nocking.report;

import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.svgsupport.BatikSVGDrawer;
import com.openhtmltopdf.util.XRLog;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;

/** Pages in XHTML as a PDF with the fonts that ship inside it. Nothing is fetched from anywhere. */
public final class PdfPages {
  private PdfPages() {}

  /**
   * @param xhtml a well-formed page with its style inside
   */
  public static byte[] of(String xhtml) {
    XRLog.setLoggingEnabled(false);
    // Letters in drawings are looked up among the registered fonts.
    Typefaces.text(10);
    var out = new ByteArrayOutputStream();
    var builder = new PdfRendererBuilder();
    builder.useSVGDrawer(new BatikSVGDrawer());
    face(builder, "fonts/Barlow_400Regular.ttf", "Barlow", 400);
    face(builder, "fonts/Barlow_600SemiBold.ttf", "Barlow", 700);
    face(builder, "fonts/JetBrainsMono_400Regular.ttf", "JetBrains Mono", 400);
    builder.useUriResolver((base, uri) -> null);
    builder.withHtmlContent(xhtml, null);
    builder.toStream(out);
    try {
      builder.run();
    } catch (IOException e) {
      throw new UncheckedIOException("a page in memory was not written", e);
    }
    return out.toByteArray();
  }

  private static void face(PdfRendererBuilder builder, String file, String family, int weight) {
    builder.useFont(() -> Typefaces.open(file), family, weight, FontStyle.NORMAL, true);
  }
}
