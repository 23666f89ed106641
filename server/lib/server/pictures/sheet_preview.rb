# frozen_string_literal: true

module Server
  module Pictures
    # An output's picture at a screen's size, with masks, safe areas and burn-ins, as its file
    # will have it.
    module SheetPreview
      WIDTH = 960

      module_function

      # @param sheet [Mordant::Deliver::Sheet]
      # @param frame [Integer] record frame
      # @return [String] PNG
      def png(cut, sheet, frame)
        wish = Wish.new(cut:, frame:, screen: Screens.of(cut.project, nil))
        working, = Desk.current.picture(wish)
        small = Mordant::Deliver::Sheet.new(sheet.to_h.merge("width" => WIDTH, "height" => (WIDTH * sheet.height.fdiv(sheet.width)).round.clamp(16, 1200)), width: WIDTH, height: WIDTH)
        picture = Mordant::Deliver::Fit.call(shown(cut, sheet, working, frame), small)
        Mordant::Media::Png.encode(sheet.burns.draw(picture, tokens(wish)), compression: 1)
      end

      # Light is shown as the leading target shows it.
      def shown(cut, sheet, working, frame)
        view = Mordant::Colour.encoding(sheet.view.encoding).scene? ? cut.project.view : sheet.view
        cut.project.output(cut.renditions.bound(view, frame)).run(working)
      end

      def tokens(wish)
        order = Order.new(cut: wish.cut)
        Stretch.new(order, nil).describe(wish.frame, name: "", written: Time.now).last
      end
    end
  end
end
