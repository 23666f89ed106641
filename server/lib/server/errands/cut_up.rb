# frozen_string_literal: true

module Server
  module Errands
    # Cuts a shot of a flat programme up where its shots change; a transition that is baked in becomes a stretch of its own.
    class CutUp
      # @param cut [Cut]
      # @param wish [Hash] shot: its id
      # @raise [Mordant::ParameterError]
      def initialize(cut, wish)
        @cut = cut
        @shot = Shot.where(cut:).where.not(position: nil).includes(clip: :media_root).find_by(id: wish["shot"]) || raise(Mordant::ParameterError.new(path: "shot", expected: "a shot of the cut", found: wish["shot"]))
        clip = @shot.clip
        clip.association(:project).target = cut.project
        plain = clip.ready? && !clip.run? && !clip.paced? && @shot.place.plain?
        raise Mordant::ParameterError.new(path: "shot", expected: "a video at its own speed and rate", found: clip.stem) unless plain
      end

      def count = @shot.clip.file_frames

      def single? = true

      # @return [Hash] how many shots there are then, and changes of each kind
      # @raise [Mordant::Error]
      def call(_errand, &report)
        changes = Mordant::Cut::Changes.of(@shot.clip.file) { |done| report.call([done, count].min) }
        @shot.reload
        pieces = pieces(changes)
        offsets = pieces.map(&:first).drop(1)
        names = pieces.drop(1).to_h { |offset, name| [[:new, @shot.id, offset], {name:, scene: @shot.scene}] }
        if offsets.any?
          Assembly.change(@cut.reload, words: "#{@shot.name} cut up at its shot changes", names:) { |edit| edit.cut_up(@shot.id, offsets) }
          @shot.update!(name: pieces.first.last)
        end
        {shots: pieces.size, kinds: changes.map(&:kind).tally}
      end

      def self.forget(_errand) = nil

      private

      # @return [Array<Array(Integer, String)>] where each piece begins, and its name
      def pieces(changes)
        number = 1
        found = changes.flat_map do |change|
          from, over = [change.frame, change.over].map { |frame| frame - @shot.source_in }
          number += 1
          (change.length.zero? ? [] : [[from, "#{number - 1}–#{number} #{change.kind}"]]) + [[over, number.to_s]]
        end
        inside = found.select { |offset, _| offset.between?(1, @shot.length - 1) }
        before = found.reverse.find { |offset, _| offset <= 0 }
        [[0, before&.last || "1"], *inside].uniq(&:first)
      end
    end
  end
end
