# frozen_string_literal: true

module Server
  module Pictures
    module Bands
      # What is made of a band where something looks at the whole picture afterwards: its frames.
      module Frames
        module_function

        # @param desk [Desk]
        # @param wish [Wish]
        # @param window [Mordant::Grade::Window]
        # @return [Array<Mordant::Frame>] see Desk#part
        def make(desk, wish, _body, window) = desk.part(wish, window)

        # @param bands [Array<Array<Mordant::Frame>>] from above
        # @return [Array<Mordant::Frame>] see Desk#picture; those that are the same of bands are the same
        def join(bands)
          whole = bands.transpose.to_h { |frames| [frames.first.object_id, frames] }.transform_values { |frames| joined(frames) }
          bands.first.map { |frame| whole.fetch(frame.object_id) }
        end

        def joined(frames)
          first = frames.first
          Mordant::Frame.new(Numo::SFloat.hstack(frames.map(&:rgb)), width: first.width, height: frames.sum(&:height), encoding: first.encoding)
        end
        private_class_method :joined
      end
    end
  end
end
