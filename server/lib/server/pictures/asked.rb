# frozen_string_literal: true

module Server
  module Pictures
    # What a request's body says of the picture it wants.
    module Asked
      module_function

      # @param cut [Cut]
      # @param body [Hash] frame, on, upto, adds, taken_gain, trial, source, test, still or swatch, playing, size
      # @return [Wish]
      # @raise [Mordant::Error]
      def wish(cut, body)
        raise Mordant::ParameterError.new(path: "frame", expected: "a whole number", found: body["frame"]) unless body["frame"].is_a?(Integer)

        Wish.new(cut:, frame: body["frame"], screen: Screens.of(cut.project, body["on"]), trial: Trial.read(body["trial"]),
          source: body["source"] == true, test: test_picture(body["test"]), still: KeptPicture.of(body, "body"),
          upto: body["upto"]&.to_s, adds: body["adds"]&.to_s, gain: body["taken_gain"], passing: body["playing"] == true || body["size"] == "drag")
      end

      # @return [Mordant::Media::TestPicture, nil]
      def test_picture(id) = id && Mordant::Media::TestPicture.fetch(id)
    end
  end
end
